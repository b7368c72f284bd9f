package org.transitum.server.counters;

import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.transitum.core.counters.Measure;

@Mapper
interface SeriesMapper {
  record SeriesRow(long id, String objectKey, Measure measure, int stepSeconds) {}

  record DayRow(long seriesId, int dayEpoch, byte[] payload) {}

  record DayPresence(Measure measure, int stepSeconds, int dayEpoch, int present) {}

  /** A day as it is stored, with its summary. */
  record StoredDay(
      long series,
      int day,
      int present,
      double lowest,
      double highest,
      double total,
      byte[] payload) {}

  record DayTotal(String objectKey, int dayEpoch, int present, double total) {}

  @Select("select id, object_key, measure, step_seconds from series")
  List<SeriesRow> all();

  @Select("select id, object_key, measure, step_seconds from series where object_key = #{object}")
  List<SeriesRow> of(String object);

  @Select(
      """
      select id from final table (
        insert into series (object_key, measure, step_seconds)
        values (#{object}, #{measure}, #{step}))
      """)
  long insert(
      @Param("object") String object, @Param("measure") Measure measure, @Param("step") int step);

  @Select(
      """
      select series_id, day_epoch, payload from series_day
       where series_id = #{series} and day_epoch >= #{from} order by day_epoch
      """)
  List<DayRow> days(@Param("series") long series, @Param("from") int from);

  @Select("select day_epoch from series_day where series_id = #{series}")
  List<Integer> dayNumbers(long series);

  @Select(
      """
      select series_id, day_epoch, payload from series_day
       where series_id = #{series} and day_epoch = #{day}
      """)
  DayRow day(@Param("series") long series, @Param("day") int day);

  @Insert(
      """
      insert into series_day (series_id, day_epoch, present, lowest, highest, total, payload)
      values (#{series}, #{day}, #{present}, #{lowest}, #{highest}, #{total}, #{payload})
      """)
  void insertDay(StoredDay day);

  @Update(
      """
      update series_day set present = #{present}, lowest = #{lowest}, highest = #{highest},
        total = #{total}, payload = #{payload}
       where series_id = #{series} and day_epoch = #{day}
      """)
  void updateDay(StoredDay day);

  @Select(
      """
      select s.measure, s.step_seconds, d.day_epoch, d.present from series_day d
        join series s on s.id = d.series_id
       where s.object_key = #{object} and d.day_epoch >= #{from}
       order by s.measure, d.day_epoch
      """)
  List<DayPresence> presence(@Param("object") String object, @Param("from") int from);

  @Select(
      """
      select s.object_key, d.day_epoch, d.present, d.total from series_day d
        join series s on s.id = d.series_id
       where s.measure = #{measure} and d.day_epoch >= #{from}
      """)
  List<DayTotal> totals(@Param("measure") Measure measure, @Param("from") int from);
}
