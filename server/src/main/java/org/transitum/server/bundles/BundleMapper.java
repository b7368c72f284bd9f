package org.transitum.server.bundles;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.transitum.server.bundles.BundleService.BundleState;

@Mapper
interface BundleMapper {
  /**
   * @param uid by which a bundle that comes twice is known
   * @param payload the servers and what was left out, as JSON
   */
  record BundleRow(
      long id,
      String uid,
      String name,
      String site,
      String person,
      Instant receivedAt,
      Instant fromAt,
      Instant toAt,
      BundleState state,
      long samples,
      String payload) {}

  String COLUMNS =
      "id, uid, name, site, person, received_at, from_at, to_at, state, samples, payload";

  @Select(
      """
      select id from final table (
        insert into bundle (uid, name, site, person, received_at, from_at, to_at, state, payload)
        values (#{uid}, #{name}, #{site}, #{person}, #{receivedAt}, #{fromAt}, #{toAt}, #{state},
          #{payload}))
      """)
  long insert(BundleRow row);

  @Select("select " + COLUMNS + " from bundle where uid = #{uid}")
  Optional<BundleRow> byUid(String uid);

  @Select("select " + COLUMNS + " from bundle where id = #{id}")
  Optional<BundleRow> find(long id);

  /** Those that want a decision first, then the latest. */
  @Select(
      "select "
          + COLUMNS
          + """
           from bundle
          order by state in ('RECEIVED', 'WAITING', 'STORING', 'FAILED')
              or exists (select 1 from reading r where r.bundle_id = bundle.id and r.state = 'OPEN') desc,
            id desc
          limit 50
          """)
  List<BundleRow> latest();

  @Select("select " + COLUMNS + " from bundle where state = #{state} order by id")
  List<BundleRow> in(BundleState state);

  @Update(
      """
      update bundle set state = #{state}, samples = #{samples}, payload = #{payload}
       where id = #{id}
      """)
  void save(
      @Param("id") long id,
      @Param("state") BundleState state,
      @Param("samples") long samples,
      @Param("payload") String payload);

  @Update("update bundle set state = #{to} where id = #{id} and state = #{from}")
  int move(@Param("id") long id, @Param("from") BundleState from, @Param("to") BundleState to);
}
