package org.transitum.server.inventory;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.apache.ibatis.annotations.Arg;
import org.apache.ibatis.annotations.ConstructorArgs;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.ResultMap;
import org.apache.ibatis.annotations.Results;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Origin;
import org.transitum.core.inventory.Reading;

/** Objects, what sources told of them, and their other names. */
@Mapper
interface EstateMapper {
  record ObjectRow(ObjectKind kind, String objectKey, Instant goneAt) {}

  record SourceRow(ObjectKind kind, String objectKey, String source) {}

  record AliasRow(ObjectKind kind, String otherKey, String objectKey, String person, Instant at) {}

  /**
   * @param latest whether its source has told nothing newer of this attribute
   * @param readingId of the reading that brought it; null where a person stated it
   */
  record FactRow(
      long id,
      ObjectKind kind,
      String objectKey,
      Attribute attribute,
      String factValue,
      Origin origin,
      String source,
      String place,
      Instant at,
      Instant seenAt,
      boolean pinned,
      String reason,
      boolean latest,
      Long readingId) {}

  /** Facts of one reading, column by column. */
  @SuppressWarnings("ArrayRecordComponent")
  record FactColumns(
      String[] kinds, String[] keys, String[] attributes, String[] values, String[] places) {}

  /** Objects, column by column. */
  @SuppressWarnings("ArrayRecordComponent")
  record ObjectColumns(String[] kinds, String[] keys) {}

  String FACT =
      "id, kind, object_key, attribute, fact_value, origin, source, place, at, seen_at, pinned, reason,"
          + " latest, reading_id";

  @Select("select kind, object_key, gone_at from estate_object")
  List<ObjectRow> objects();

  @Select(
      "select kind, object_key, gone_at from estate_object where kind = #{kind} and object_key = #{key}")
  List<ObjectRow> object(@Param("kind") ObjectKind kind, @Param("key") String key);

  @Select("select kind, object_key, source from object_source")
  List<SourceRow> sources();

  @Select(
      """
      select kind, object_key, source from object_source
       where kind = #{kind} and object_key = #{key}
      """)
  List<SourceRow> sourcesOf(@Param("kind") ObjectKind kind, @Param("key") String key);

  /** All at once, so the columns are named: finding them for each row took most of the time. */
  @Results(id = "fact")
  @ConstructorArgs({
    @Arg(column = "id", javaType = long.class),
    @Arg(column = "kind", javaType = ObjectKind.class),
    @Arg(column = "object_key", javaType = String.class),
    @Arg(column = "attribute", javaType = Attribute.class),
    @Arg(column = "fact_value", javaType = String.class),
    @Arg(column = "origin", javaType = Origin.class),
    @Arg(column = "source", javaType = String.class),
    @Arg(column = "place", javaType = String.class),
    @Arg(column = "at", javaType = Instant.class),
    @Arg(column = "seen_at", javaType = Instant.class),
    @Arg(column = "pinned", javaType = boolean.class),
    @Arg(column = "reason", javaType = String.class),
    @Arg(column = "latest", javaType = boolean.class),
    @Arg(column = "reading_id", javaType = Long.class)
  })
  @Select("select " + FACT + " from fact where latest")
  List<FactRow> latestFacts();

  @ResultMap("fact")
  @Select("select " + FACT + " from fact where latest and kind = #{kind} and object_key = #{key}")
  List<FactRow> latestFactsOf(@Param("kind") ObjectKind kind, @Param("key") String key);

  @Select(
      "select "
          + FACT
          + " from fact where kind = #{kind} and object_key = #{key} order by attribute, id desc")
  List<FactRow> factsOf(@Param("kind") ObjectKind kind, @Param("key") String key);

  @Update(
      """
      merge into estate_object (kind, object_key, gone_at) key (kind, object_key)
      values (#{kind}, #{key}, null)
      """)
  void keep(@Param("kind") ObjectKind kind, @Param("key") String key);

  @Update("update estate_object set gone_at = #{at} where kind = #{kind} and object_key = #{key}")
  void gone(@Param("kind") ObjectKind kind, @Param("key") String key, @Param("at") Instant at);

  @Delete(
      """
      delete from object_source
       where kind = #{kind} and object_key = #{key} and source = #{source}
      """)
  void notToldBy(
      @Param("kind") ObjectKind kind, @Param("key") String key, @Param("source") String source);

  @Insert(
      """
      insert into fact (kind, object_key, attribute, fact_value, origin, source, place, at, seen_at,
        pinned, reason, latest, reading_id)
      values (#{kind}, #{objectKey}, #{attribute}, #{factValue}, #{origin}, #{source}, #{place},
        #{at}, #{seenAt}, #{pinned}, #{reason}, #{latest}, #{readingId})
      """)
  void insert(FactRow fact);

  /**
   * Many facts of one reading, column by column: a statement a fact would take most of the time of
   * accepting a large reading.
   */
  @Insert(
      """
      insert into fact (kind, object_key, attribute, fact_value, place, origin, source, at, seen_at,
        pinned, latest, reading_id)
      select told.kind, told.object_key, told.attribute, told.fact_value, told.place,
             cast(#{of.origin} as varchar), cast(#{of.source} as varchar),
             cast(#{of.at} as timestamp(3) with time zone),
             cast(#{of.at} as timestamp(3) with time zone), false, true, cast(#{reading} as bigint)
        from unnest(
          cast(#{rows.kinds,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array),
          cast(#{rows.keys,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array),
          cast(#{rows.attributes,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array),
          cast(#{rows.values,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array),
          cast(#{rows.places,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array))
          as told (kind, object_key, attribute, fact_value, place)
      """)
  void insertAll(
      @Param("rows") FactColumns rows, @Param("of") Reading of, @Param("reading") long reading);

  /** Many objects at once, told of by one source and there from now on. */
  @Update(
      """
      merge into object_source (kind, object_key, source) key (kind, object_key, source)
      select told.kind, told.object_key, cast(#{source} as varchar)
        from unnest(
          cast(#{objects.kinds,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array),
          cast(#{objects.keys,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array))
          as told (kind, object_key)
      """)
  void allToldBy(@Param("objects") ObjectColumns objects, @Param("source") String source);

  @Update(
      """
      merge into estate_object (kind, object_key, gone_at) key (kind, object_key)
      select told.kind, told.object_key, null
        from unnest(
          cast(#{kinds,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array),
          cast(#{keys,typeHandler=org.apache.ibatis.type.ArrayTypeHandler} as varchar array))
          as told (kind, object_key)
      """)
  void keepAll(ObjectColumns objects);

  @Update(
      """
      <script>
      update fact set latest = false where latest and id in
      <foreach collection="ids" item="id" open="(" separator="," close=")">#{id}</foreach>
      </script>
      """)
  int supersede(@Param("ids") Collection<Long> ids);

  @Update(
      """
      <script>
      update fact set seen_at = #{at} where id in
      <foreach collection="ids" item="id" open="(" separator="," close=")">#{id}</foreach>
      </script>
      """)
  void seen(@Param("ids") Collection<Long> ids, @Param("at") Instant at);

  @Delete("delete from fact where reading_id = #{reading}")
  void removeFactsOf(long reading);

  /** After facts were removed: the newest that is left of each source is its latest again. */
  @Update(
      """
      update fact set latest = true where kind = #{kind} and object_key = #{key} and id in (
        select max(id) from fact where kind = #{kind} and object_key = #{key}
         group by attribute, origin, case when origin = 'STATED' then '' else source end)
      """)
  void restoreLatest(@Param("kind") ObjectKind kind, @Param("key") String key);

  @Select("select kind, other_key, object_key, person, at from object_alias")
  List<AliasRow> aliases();

  @Insert(
      """
      merge into object_alias (kind, other_key, object_key, person, at) key (kind, other_key)
      values (#{kind}, #{otherKey}, #{objectKey}, #{person}, #{at})
      """)
  void alias(AliasRow row);

  @Delete("delete from object_alias where kind = #{kind} and other_key = #{otherKey}")
  void dropAlias(@Param("kind") ObjectKind kind, @Param("otherKey") String otherKey);
}
