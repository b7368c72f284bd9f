package org.transitum.server.inventory;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Origin;

@Mapper
interface EstateMapper {
  record ObjectRow(ObjectKind kind, String objectKey, Instant goneAt) {}

  record SourceRow(ObjectKind kind, String objectKey, String source) {}

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
      boolean pinned,
      String reason,
      boolean counts) {}

  record ReadingRow(
      long id, String source, Instant at, String person, String state, String payload) {}

  String FACT =
      "id, kind, object_key, attribute, fact_value, origin, source, place, at, pinned, reason, counts";

  @Select("select kind, object_key, gone_at from estate_object order by kind, object_key")
  List<ObjectRow> objects();

  @Select("select kind, object_key, source from object_source")
  List<SourceRow> sources();

  @Select("select " + FACT + " from fact where counts")
  List<FactRow> countingFacts();

  @Select(
      "select "
          + FACT
          + " from fact where kind = #{kind} and object_key = #{key}"
          + " order by attribute, counts desc, id desc")
  List<FactRow> factsOf(@Param("kind") ObjectKind kind, @Param("key") String key);

  @Select(
      "select "
          + FACT
          + " from fact where kind = #{kind} and object_key = #{key}"
          + " and attribute = #{attribute} and counts")
  Optional<FactRow> countingFact(
      @Param("kind") ObjectKind kind,
      @Param("key") String key,
      @Param("attribute") Attribute attribute);

  @Update(
      """
      merge into estate_object (kind, object_key, gone_at) key (kind, object_key)
      values (#{kind}, #{key}, null)
      """)
  void keep(@Param("kind") ObjectKind kind, @Param("key") String key);

  @Update("update estate_object set gone_at = #{at} where kind = #{kind} and object_key = #{key}")
  void gone(@Param("kind") ObjectKind kind, @Param("key") String key, @Param("at") Instant at);

  @Update(
      """
      merge into object_source (kind, object_key, source) key (kind, object_key, source)
      values (#{kind}, #{key}, #{source})
      """)
  void toldBy(
      @Param("kind") ObjectKind kind, @Param("key") String key, @Param("source") String source);

  @Update(
      """
      update fact set counts = false
       where kind = #{kind} and object_key = #{key} and attribute = #{attribute} and counts
      """)
  void retire(
      @Param("kind") ObjectKind kind,
      @Param("key") String key,
      @Param("attribute") Attribute attribute);

  @Update("update fact set counts = false where id = #{id} and counts")
  int retireVersion(long id);

  @Insert(
      """
      insert into fact (kind, object_key, attribute, fact_value, origin, source, place, at, pinned,
        reason, counts)
      values (#{kind}, #{objectKey}, #{attribute}, #{factValue}, #{origin}, #{source}, #{place},
        #{at}, #{pinned}, #{reason}, #{counts})
      """)
  void insert(FactRow fact);

  @Select(
      """
      select id from final table (
        insert into reading (source, at, person, state, payload)
        values (#{source}, #{at}, #{person}, 'OPEN', #{payload}))
      """)
  long insertReading(
      @Param("source") String source,
      @Param("at") Instant at,
      @Param("person") String person,
      @Param("payload") String payload);

  @Select("select id, source, at, person, state, payload from reading where id = #{id}")
  Optional<ReadingRow> reading(long id);

  @Select(
      """
      select id, source, at, person, state, '' as payload from reading
       where state = 'OPEN' order by id desc
      """)
  List<ReadingRow> openReadings();

  @Update("update reading set state = #{state} where id = #{id} and state = 'OPEN'")
  int closeReading(@Param("id") long id, @Param("state") String state);
}
