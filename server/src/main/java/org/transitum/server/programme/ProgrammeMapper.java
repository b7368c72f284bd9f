package org.transitum.server.programme;

import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.transitum.core.sizing.SizingSettings;

@Mapper
interface ProgrammeMapper {
  record ProgrammeRow(
      String name,
      String zone,
      boolean demo,
      double percentile,
      int headroomPercent,
      int horizonMonths,
      int lookBackDays,
      double growthPercentPerYear,
      long linkBytesPerSecond,
      int staleAfterDays,
      int version) {}

  @Select(
      """
      select name, zone, demo, percentile, headroom_percent, horizon_months, look_back_days,
             growth_percent_per_year, link_bytes_per_second, stale_after_days, version
        from programme where id = 1
      """)
  Optional<ProgrammeRow> find();

  @Insert(
      """
      insert into programme (id, name, zone, demo, percentile, headroom_percent, horizon_months,
        look_back_days, growth_percent_per_year, link_bytes_per_second,
        stale_after_days, version)
      values (1, #{name}, #{zone}, #{demo}, #{percentile}, #{headroomPercent}, #{horizonMonths},
        #{lookBackDays}, #{growthPercentPerYear}, #{linkBytesPerSecond}, #{staleAfterDays},
        #{version})
      """)
  void insert(ProgrammeRow row);

  @Update(
      """
      update programme set stale_after_days = #{days}, version = version + 1
       where version = #{version}
      """)
  int staleAfter(@Param("days") int days, @Param("version") long version);

  @Update("update programme set name = #{name}, zone = #{zone}, version = version + 1")
  void rename(@Param("name") String name, @Param("zone") String zone);

  @Update(
      """
      update programme set percentile = #{s.percentile}, headroom_percent = #{s.headroomPercent},
        horizon_months = #{s.horizonMonths}, look_back_days = #{s.lookBackDays},
        growth_percent_per_year = #{s.growthPercentPerYear}, version = version + 1
       where version = #{version}
      """)
  int size(@Param("s") SizingSettings settings, @Param("version") long version);
}
