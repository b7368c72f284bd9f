package org.transitum.server.journal;

import java.time.Instant;
import java.util.List;
import java.util.function.Function;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;
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

  /** Entries of one moment, column by column. */
  @SuppressWarnings("ArrayRecordComponent")
  record EntryColumns(
      Instant at,
      String[] persons,
      String[] actions,
      String[] kinds,
      String[] keys,
      @Nullable String[] attributes,
      @Nullable String[] froms,
      @Nullable String[] tos,
      @Nullable String[] notes) {

    static EntryColumns of(List<Entry> entries) {
      return new EntryColumns(
          entries.get(0).at(),
          column(entries, Entry::person),
          column(entries, Entry::action),
          column(entries, Entry::objectKind),
          column(entries, Entry::objectKey),
          column(entries, Entry::attribute),
          column(entries, Entry::fromValue),
          column(entries, Entry::toValue),
          column(entries, Entry::note));
    }

    private static String[] column(List<Entry> entries, Function<Entry, @Nullable String> of) {
      return entries.stream().map(of).toArray(String[]::new);
    }
  }

  @Insert(
      """
      insert into journal (at, person, action, object_kind, object_key, attribute, from_value,
        to_value, note)
      select cast(#{at} as timestamp(3) with time zone), told.person, told.action,
             told.object_kind, told.object_key, told.attribute, told.from_value, told.to_value,
             told.note
        from unnest(
          cast(#{persons,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array),
          cast(#{actions,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array),
          cast(#{kinds,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array),
          cast(#{keys,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array),
          cast(#{attributes,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array),
          cast(#{froms,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array),
          cast(#{tos,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array),
          cast(#{notes,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array))
          with ordinality
          as told (person, action, object_kind, object_key, attribute, from_value, to_value, note,
            place)
       order by told.place
      """)
  void insertAll(EntryColumns entries);

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
