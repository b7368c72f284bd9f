package org.transitum.server.journal;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.transitum.server.journal.JournalService.DayCount;
import org.transitum.server.journal.JournalService.Entry;

@Mapper
interface JournalMapper {
  String COLUMNS =
      "id, at, person, action, object_kind, object_key, attribute, from_value, to_value, note";

  @Insert(
      """
      insert into journal (at, person, action, object_kind, object_key, attribute, from_value,
        to_value, note)
      values (#{at}, #{person}, #{action}, #{objectKind}, #{objectKey}, #{attribute},
        #{fromValue}, #{toValue}, #{note})
      """)
  void insert(Entry entry);

  @Select(
      "select "
          + COLUMNS
          + " from journal where (#{kind} is null or object_kind = #{kind})"
          + " and (#{key} is null or object_key = #{key}) and (#{before} is null or id < #{before})"
          + " order by id desc limit #{limit}")
  List<Entry> page(
      @Param("kind") String kind,
      @Param("key") String key,
      @Param("before") Long before,
      @Param("limit") int limit);

  @Select(
      "select "
          + COLUMNS
          + " from journal where object_kind = 'DATABASE'"
          + " and attribute in ('place', 'stage', 'wave', 'condition', 'progress') and at <= #{at} order by at, id")
  List<Entry> states(Instant at);

  @Select(
      """
      select cast(at as date) as on_day, count(*) as entries from journal
       group by cast(at as date) order by 1
      """)
  List<DayCount> days();
}
