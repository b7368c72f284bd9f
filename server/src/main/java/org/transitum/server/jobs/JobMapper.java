package org.transitum.server.jobs;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface JobMapper {
  record JobRow(
      long id,
      String kind,
      String title,
      String state,
      String person,
      Instant startedAt,
      Instant endedAt,
      String message,
      String result) {}

  @Select(
      """
      select id from final table (
        insert into job (kind, title, state, person, started_at)
        values (#{kind}, #{title}, 'RUNNING', #{person}, #{at}))
      """)
  long insert(
      @Param("kind") String kind,
      @Param("title") String title,
      @Param("person") String person,
      @Param("at") Instant at);

  @Update(
      """
      update job set state = #{state}, ended_at = #{at}, message = #{message}, result = #{result}
       where id = #{id}
      """)
  void end(
      @Param("id") long id,
      @Param("state") String state,
      @Param("at") Instant at,
      @Param("message") String message,
      @Param("result") String result);

  @Update(
      """
      update job set state = 'FAILED', ended_at = #{at},
        message = 'The server stopped in the middle; nothing of it was stored. Start it again.'
       where state = 'RUNNING'
      """)
  void failRunning(Instant at);

  @Select("select * from job where id = #{id}")
  Optional<JobRow> find(long id);

  @Select("select * from job order by id desc limit 50")
  List<JobRow> latest();
}
