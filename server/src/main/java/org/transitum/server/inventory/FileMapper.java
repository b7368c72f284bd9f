package org.transitum.server.inventory;

import java.time.Instant;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Files that wait for their columns to be mapped, and the mappings people gave before. */
@Mapper
interface FileMapper {
  record FileRow(long id, String name, Instant at, String person, byte[] content) {}

  record MappingRow(String shape, String payload, String person, Instant at) {}

  @Select(
      """
      select id from final table (
        insert into inventory_file (name, at, person, content)
        values (#{name}, #{at}, #{person}, #{content}))
      """)
  long keep(
      @Param("name") String name,
      @Param("at") Instant at,
      @Param("person") String person,
      @Param("content") byte[] content);

  @Select("select id, name, at, person, content from inventory_file where id = #{id}")
  Optional<FileRow> file(long id);

  @Delete("delete from inventory_file where id = #{id}")
  int drop(long id);

  @Delete("delete from inventory_file where at < #{before}")
  void dropBefore(Instant before);

  @Select("select shape, payload, person, at from column_mapping where shape = #{shape}")
  Optional<MappingRow> mapping(String shape);

  @Insert(
      """
      merge into column_mapping (shape, payload, person, at) key (shape)
      values (#{shape}, #{payload}, #{person}, #{at})
      """)
  void remember(MappingRow row);
}
