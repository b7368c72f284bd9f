package org.transitum.server.inventory;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.transitum.sources.inventory.ReadableEngine;
import org.transitum.sources.inventory.ServerAddress.TlsMode;

@Mapper
interface SourceServerMapper {
  record ServerRow(
      String instance,
      ReadableEngine engine,
      String host,
      int port,
      String databaseName,
      String login,
      byte[] secret,
      TlsMode tls,
      Integer samplingSeconds,
      Instant sampledAt,
      String samplingProblem) {}

  String COLUMNS =
      "instance, engine, host, port, database_name, login, secret, tls, sampling_seconds, sampled_at, sampling_problem";

  @Select("select " + COLUMNS + " from source_server order by instance")
  List<ServerRow> all();

  @Select("select " + COLUMNS + " from source_server where instance = #{instance}")
  Optional<ServerRow> find(String instance);

  @Update(
      """
      merge into source_server (instance, engine, host, port, database_name, login, secret, tls)
        key (instance)
      values (#{instance}, #{engine}, #{host}, #{port}, #{databaseName}, #{login}, #{secret}, #{tls})
      """)
  void save(ServerRow row);

  @Update("update source_server set sampling_seconds = #{seconds} where instance = #{instance}")
  void sampling(@Param("instance") String instance, @Param("seconds") Integer seconds);

  @Update(
      """
      update source_server set sampled_at = #{at}, sampling_problem = #{problem}
       where instance = #{instance}
      """)
  void sampled(
      @Param("instance") String instance,
      @Param("at") Instant at,
      @Param("problem") String problem);
}
