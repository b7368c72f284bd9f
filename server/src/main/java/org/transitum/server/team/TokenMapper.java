package org.transitum.server.team;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface TokenMapper {
  record TokenRow(
      long id,
      String name,
      TokenPurpose purpose,
      String createdBy,
      Instant createdAt,
      Instant lastUsedAt,
      Instant revokedAt) {}

  String COLUMNS = "id, name, purpose, created_by, created_at, last_used_at, revoked_at";

  @Select("select " + COLUMNS + " from token where revoked_at is null order by name")
  List<TokenRow> valid();

  @Select("select " + COLUMNS + " from token where hash = #{hash} and revoked_at is null")
  Optional<TokenRow> find(String hash);

  @Select("select " + COLUMNS + " from token where id = #{id}")
  Optional<TokenRow> byId(long id);

  @Select("select count(*) from token where name = #{name}")
  int named(String name);

  @Select(
      """
      select id from final table (
        insert into token (name, purpose, hash, created_by, created_at)
        values (#{name}, #{purpose}, #{hash}, #{person}, #{at}))
      """)
  long insert(
      @Param("name") String name,
      @Param("purpose") TokenPurpose purpose,
      @Param("hash") String hash,
      @Param("person") String person,
      @Param("at") Instant at);

  @Update("update token set last_used_at = #{at} where id = #{id}")
  void used(@Param("id") long id, @Param("at") Instant at);

  @Update("update token set revoked_at = #{at} where id = #{id} and revoked_at is null")
  int revoke(@Param("id") long id, @Param("at") Instant at);
}
