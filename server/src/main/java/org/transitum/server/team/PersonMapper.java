package org.transitum.server.team;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.transitum.core.team.Role;

@Mapper
interface PersonMapper {
  record PersonRow(String login, String name, Role role, String passwordHash) {}

  @Select("select login, name, role, password_hash from person where login = #{login}")
  Optional<PersonRow> find(String login);

  @Select("select login, name, role, password_hash from person order by name")
  List<PersonRow> all();

  @Select("select count(*) from person")
  int count();

  @Insert(
      """
      insert into person (login, name, role, password_hash)
      values (#{login}, #{name}, #{role}, #{passwordHash})
      """)
  void insert(PersonRow person);
}
