package org.transitum.server.counters;

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
interface MetricSourceMapper {
  /**
   * @param targets object key by target, as JSON
   * @param mapping JSON of docs/formats/metrics.schema.json; null for the standard one
   */
  record MetricSourceRow(
      String name,
      String url,
      String login,
      byte[] secret,
      int stepSeconds,
      String targets,
      String mapping,
      Instant readUntil,
      int version) {}

  String COLUMNS = "name, url, login, secret, step_seconds, targets, mapping, read_until, version";

  @Select("select " + COLUMNS + " from metric_source order by name")
  List<MetricSourceRow> all();

  @Select("select " + COLUMNS + " from metric_source where name = #{name}")
  Optional<MetricSourceRow> find(String name);

  @Insert(
      """
      insert into metric_source (name, url, login, secret, step_seconds, targets, mapping, version)
      values (#{name}, #{url}, #{login}, #{secret}, #{stepSeconds}, #{targets}, #{mapping}, 1)
      """)
  void insert(MetricSourceRow row);

  @Update(
      """
      update metric_source set url = #{url}, login = #{login}, secret = #{secret},
        step_seconds = #{stepSeconds}, targets = #{targets}, mapping = #{mapping},
        version = version + 1
       where name = #{name} and version = #{version}
      """)
  int update(MetricSourceRow row);

  @Update("update metric_source set read_until = #{until} where name = #{name}")
  void readUntil(@Param("name") String name, @Param("until") Instant until);

  @Delete("delete from metric_source where name = #{name}")
  int drop(String name);
}
