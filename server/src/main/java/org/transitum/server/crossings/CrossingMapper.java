package org.transitum.server.crossings;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.transitum.core.crossings.Condition;
import org.transitum.core.crossings.Stage;

@Mapper
interface CrossingMapper {
  record CrossingRow(
      int number,
      String databaseKey,
      Stage stage,
      Condition condition,
      double progress,
      Long lagSeconds,
      String reason,
      String owner,
      Instant startedAt,
      Instant changedAt,
      int version) {}

  record StateRow(String databaseKey, Instant preparedAt, Instant settledAt, Instant retiredAt) {}

  @Select("select * from crossing order by number desc")
  List<CrossingRow> all();

  @Select("select * from crossing where number = #{number}")
  Optional<CrossingRow> find(int number);

  @Select("select * from crossing where database_key = #{database} order by number desc")
  List<CrossingRow> of(String database);

  @Select("select coalesce(max(number), 0) + 1 from crossing")
  int nextNumber();

  @Insert(
      """
      insert into crossing (number, database_key, stage, condition, progress, lag_seconds, reason,
        owner, started_at, changed_at, version)
      values (#{number}, #{databaseKey}, #{stage}, #{condition}, #{progress}, #{lagSeconds},
        #{reason}, #{owner}, #{startedAt}, #{changedAt}, #{version})
      """)
  void insert(CrossingRow row);

  @Update(
      """
      update crossing set stage = #{stage}, condition = #{condition}, progress = #{progress},
        lag_seconds = #{lagSeconds}, reason = #{reason}, owner = #{owner},
        changed_at = #{changedAt}, version = version + 1
       where number = #{number} and version = #{version}
      """)
  int update(CrossingRow row);

  @Select("select * from database_state")
  List<StateRow> states();

  @Select("select * from database_state where database_key = #{database}")
  Optional<StateRow> state(String database);

  @Update(
      """
      merge into database_state (database_key, prepared_at, settled_at, retired_at)
        key (database_key)
      values (#{databaseKey}, #{preparedAt}, #{settledAt}, #{retiredAt})
      """)
  void save(StateRow row);
}
