package org.transitum.server.inventory;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Views of the inventory that people saved for themselves. */
@Mapper
interface SavedViewMapper {
  /**
   * @param address the query of the view's address, without the question mark
   */
  record SavedView(long id, String name, String address) {}

  @Select("select id, name, address from saved_view where person = #{person} order by name")
  List<SavedView> of(String person);

  @Update(
      """
      merge into saved_view (person, name, address) key (person, name)
      values (#{person}, #{name}, #{address})
      """)
  void save(
      @Param("person") String person, @Param("name") String name, @Param("address") String address);

  @Delete("delete from saved_view where id = #{id} and person = #{person}")
  int drop(@Param("id") long id, @Param("person") String person);
}
