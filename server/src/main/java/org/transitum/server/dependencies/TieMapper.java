package org.transitum.server.dependencies;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.transitum.core.dependencies.TieKind;
import org.transitum.core.inventory.Origin;
import org.transitum.server.dependencies.TieService.TieState;

@Mapper
interface TieMapper {
  record TieRow(
      long id,
      String fromKey,
      String toKey,
      TieKind kind,
      double weight,
      TieState state,
      int version) {}

  record EvidenceRow(long tieId, Origin origin, String source, String words, Instant at) {}

  @Select(
      "select id, from_key, to_key, kind, weight, state, version from tie order by from_key, to_key")
  List<TieRow> all();

  @Select("select id, from_key, to_key, kind, weight, state, version from tie where id = #{id}")
  Optional<TieRow> find(long id);

  @Select(
      """
      select id, from_key, to_key, kind, weight, state, version from tie
       where from_key = #{from} and to_key = #{to}
      """)
  Optional<TieRow> between(@Param("from") String from, @Param("to") String to);

  @Select(
      """
      select id from final table (
        insert into tie (from_key, to_key, kind, weight, state, version)
        values (#{fromKey}, #{toKey}, #{kind}, #{weight}, #{state}, 1))
      """)
  long insert(TieRow row);

  @Update(
      """
      update tie set kind = #{kind}, weight = #{weight}, state = #{state}, version = version + 1
       where id = #{id} and version = #{version}
      """)
  int update(TieRow row);

  @Select("select tie_id, origin, source, words, at from tie_evidence order by at desc")
  List<EvidenceRow> evidence();

  @Update(
      """
      merge into tie_evidence (tie_id, origin, source, words, at) key (tie_id, source, words)
      values (#{tieId}, #{origin}, #{source}, #{words}, #{at})
      """)
  void keep(EvidenceRow row);
}
