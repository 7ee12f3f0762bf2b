package ironing.server.downloads;

import java.time.OffsetDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** The queue of downloads as it is written down. */
@Mapper
interface DownloadMapper {
  /**
   * @param catalogueId null where the catalogue is no longer known
   * @param etag what the bytes that are here were told to be part of; null for nothing
   * @param problem as JSON; null for none
   */
  record DownloadRow(
      long id,
      long workspaceId,
      Long catalogueId,
      String mod,
      String version,
      String name,
      String href,
      long sizeBytes,
      String sha256,
      String state,
      String etag,
      String problem,
      long position,
      OffsetDateTime askedAt,
      OffsetDateTime endedAt,
      Long archiveId) {}

  /** The number that a new row gets. */
  final class NewDownload {
    private long id;

    public long getId() {
      return id;
    }

    public void setId(long id) {
      this.id = id;
    }
  }

  @Select("select * from download where workspace_id = #{workspace} order by position, id")
  List<DownloadRow> all(long workspace);

  @Select("select * from download where id = #{id}")
  DownloadRow get(long id);

  @Select("select * from download where state = 'waiting' order by position, id")
  List<DownloadRow> waiting();

  @Select(
      """
      select * from download where workspace_id = #{workspace} and sha256 = #{sha256}
        and state <> 'done'
      """)
  DownloadRow unfinished(@Param("workspace") long workspace, @Param("sha256") String sha256);

  @Update("update download set state = 'waiting' where state = 'running'")
  void takeUpAgain();

  @Insert(
      """
      insert into download (workspace_id, catalogue_id, mod, version, name, href, size_bytes,
        sha256, state, position)
      values (#{d.workspaceId}, #{d.catalogueId}, #{d.mod}, #{d.version}, #{d.name}, #{d.href},
        #{d.sizeBytes}, #{d.sha256}, 'waiting',
        (select coalesce(max(position), 0) + 1 from download
          where workspace_id = #{d.workspaceId}))
      """)
  @Options(useGeneratedKeys = true, keyProperty = "row.id", keyColumn = "id")
  void add(@Param("d") DownloadRow d, @Param("row") NewDownload row);

  @Update(
      """
      update download set state = #{state}, problem = #{problem},
        ended_at = case when #{state} in ('done', 'failed') then now() end
      where id = #{id}
      """)
  void setState(
      @Param("id") long id, @Param("state") String state, @Param("problem") String problem);

  @Update(
      """
      update download set state = 'done', problem = null, ended_at = now(),
        archive_id = #{archive}
      where id = #{id}
      """)
  void done(@Param("id") long id, @Param("archive") long archive);

  @Update("update download set etag = #{etag} where id = #{id}")
  void setEtag(@Param("id") long id, @Param("etag") String etag);

  @Update("update download set position = #{position} where id = #{id}")
  void setPosition(@Param("id") long id, @Param("position") long position);

  @Select("select fetch_bytes_a_second from workspace where id = #{workspace}")
  Long limit(long workspace);

  @Update("update workspace set fetch_bytes_a_second = #{limit} where id = #{workspace}")
  void setLimit(@Param("workspace") long workspace, @Param("limit") Long limit);

  @Delete("delete from download where id = #{id}")
  void remove(long id);
}
