package org.transitum.server.waves;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface WaveMapper {
  record WaveRow(
      String waveKey,
      String name,
      Instant startsAt,
      Instant endsAt,
      int maxDatabases,
      long maxBytes,
      int version) {}

  record FreezeRow(long id, String name, Instant startsAt, Instant endsAt) {}

  record PlacementRow(String databaseKey, String waveKey, boolean locked) {}

  record PlanRow(long id, Instant at, String person, String state, String payload) {}

  @Select(
      """
      select wave_key, name, starts_at, ends_at, max_databases, max_bytes, version from wave
       order by starts_at, wave_key
      """)
  List<WaveRow> waves();

  @Update(
      """
      merge into wave (wave_key, name, starts_at, ends_at, max_databases, max_bytes, version)
        key (wave_key)
      values (#{waveKey}, #{name}, #{startsAt}, #{endsAt}, #{maxDatabases}, #{maxBytes}, #{version})
      """)
  void save(WaveRow row);

  @Select("select id, name, starts_at, ends_at from freeze order by starts_at")
  List<FreezeRow> freezes();

  @Delete("delete from freeze where name = #{name}")
  void dropFreeze(String name);

  @Insert("insert into freeze (name, starts_at, ends_at) values (#{name}, #{startsAt}, #{endsAt})")
  void insertFreeze(FreezeRow row);

  @Select("select database_key, wave_key, locked from placement")
  List<PlacementRow> placements();

  @Update(
      """
      merge into placement (database_key, wave_key, locked) key (database_key)
      values (#{databaseKey}, #{waveKey}, #{locked})
      """)
  void place(PlacementRow row);

  @Delete("delete from placement where database_key = #{database}")
  void unplace(String database);

  @Update("update placement set locked = #{locked} where database_key = #{database}")
  void lock(@Param("database") String database, @Param("locked") boolean locked);

  @Update("update plan set state = 'REPLACED' where state = 'DRAFT'")
  void replaceDrafts();

  @Select(
      """
      select id from final table (
        insert into plan (at, person, state, payload) values (#{at}, #{person}, 'DRAFT', #{payload}))
      """)
  long insertPlan(
      @Param("at") Instant at, @Param("person") String person, @Param("payload") String payload);

  @Select("select id, at, person, state, payload from plan where id = #{id}")
  Optional<PlanRow> plan(long id);

  @Select(
      """
      select id, at, person, state, payload from plan where state = #{state}
       order by id desc limit 1
      """)
  Optional<PlanRow> latestPlan(String state);

  @Update("update plan set state = #{state} where id = #{id} and state = 'DRAFT'")
  int closePlan(@Param("id") long id, @Param("state") String state);
}
