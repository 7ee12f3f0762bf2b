package ironing.server.lists;

import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/**
 * The lists that are followed. One that is no longer followed is kept, so that it can come back.
 */
@Mapper
interface FollowedListMapper {
  /**
   * @param content a PublishedList as JSON
   * @param ticked the numbers of entries, from 1, as JSON
   * @param departures reasons by the numbers of entries, as JSON
   */
  record ListRow(
      long id,
      String title,
      String content,
      String ticked,
      String departures,
      String at,
      boolean isDeleted) {}

  /** Takes the number that a new row got. */
  final class NewList {
    private long id;

    long id() {
      return id;
    }
  }

  @Select(
      """
      select id, title, content, ticked, departures, deleted_at is not null as is_deleted,
        to_char(brought_at at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at
      from followed_list where workspace_id = #{workspace} order by id desc
      """)
  List<ListRow> all(long workspace);

  @Insert(
      """
      insert into followed_list (workspace_id, title, content)
      values (#{workspace}, #{title}, #{content})
      """)
  @Options(useGeneratedKeys = true, keyProperty = "row.id")
  void add(
      @Param("workspace") long workspace,
      @Param("title") String title,
      @Param("content") String content,
      @Param("row") NewList row);

  @Update("update followed_list set ticked = #{ticked} where id = #{list}")
  void tick(@Param("list") long list, @Param("ticked") String ticked);

  @Update("update followed_list set departures = #{departures} where id = #{list}")
  void depart(@Param("list") long list, @Param("departures") String departures);

  @Update(
      """
      update followed_list set deleted_at = case when #{deleted} then now() end where id = #{list}
      """)
  void delete(@Param("list") long list, @Param("deleted") boolean deleted);
}
