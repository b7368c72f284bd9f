package org.transitum.server.inventory;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface ReadingMapper {
  /**
   * @param state OPEN, ACCEPTED, DISCARDED or UNDONE
   * @param effects what accepting it did, as JSON; null while it is open
   * @param bundleId the bundle it came in; null for any other
   */
  record ReadingRow(
      long id,
      String source,
      Instant at,
      String person,
      String state,
      String payload,
      Instant closedAt,
      String closedBy,
      String effects,
      Long bundleId) {}

  String HEAD =
      "id, source, at, person, state, '' as payload, closed_at, closed_by, null as effects, bundle_id";

  @Select(
      """
      select id from final table (
        insert into reading (source, at, person, state, payload, bundle_id)
        values (#{source}, #{at}, #{person}, 'OPEN', #{payload}, #{bundle}))
      """)
  long insert(
      @Param("source") String source,
      @Param("at") Instant at,
      @Param("person") String person,
      @Param("payload") String payload,
      @Nullable @Param("bundle") Long bundle);

  @Select(
      "select "
          + HEAD
          + " from reading where bundle_id = #{bundle} and state = 'OPEN' order by source")
  List<ReadingRow> openOf(long bundle);

  @Select(
      """
      select id, source, at, person, state, payload, closed_at, closed_by, effects, bundle_id
        from reading where id = #{id}
      """)
  Optional<ReadingRow> find(long id);

  @Select("select " + HEAD + " from reading where state = 'OPEN' order by id desc")
  List<ReadingRow> open();

  @Select(
      "select "
          + HEAD
          + " from reading where state in ('ACCEPTED', 'UNDONE') order by id desc limit 30")
  List<ReadingRow> accepted();

  @Update(
      """
      update reading set state = #{state}, closed_at = #{at}, closed_by = #{person}
       where id = #{id} and state = #{from}
      """)
  int close(
      @Param("id") long id,
      @Param("from") String from,
      @Param("state") String state,
      @Param("at") Instant at,
      @Param("person") String person);

  @Update("update reading set effects = #{effects} where id = #{id}")
  void keepEffects(@Param("id") long id, @Param("effects") String effects);
}
