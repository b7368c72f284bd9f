package org.transitum.server.sizing;

import java.time.Instant;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface CatalogueMapper {
  @Select("select payload from catalogue where id = 1")
  Optional<String> payload();

  @Update(
      """
      merge into catalogue (id, name, at, payload) key (id) values (1, #{name}, #{at}, #{payload})
      """)
  void save(@Param("name") String name, @Param("at") Instant at, @Param("payload") String payload);
}
