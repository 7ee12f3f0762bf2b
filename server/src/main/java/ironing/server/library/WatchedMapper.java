package ironing.server.library;

import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Watched folders, and which of their files were brought in. */
@Mapper
interface WatchedMapper {
  @Select("select coalesce(watched_folder, '') from workspace where id = #{workspace}")
  String folder(long workspace);

  @Update("update workspace set watched_folder = #{folder} where id = #{workspace}")
  void setFolder(@Param("workspace") long workspace, @Param("folder") String folder);

  @Select("select id from workspace where watched_folder is not null")
  List<Long> watching();

  @Select(
      """
      select count(*) > 0 from taken_in t
      where workspace_id = #{workspace} and path = #{path} and size_bytes = #{size}
        and modified_ms = #{modified}
      """)
  boolean isTaken(
      @Param("workspace") long workspace,
      @Param("path") String path,
      @Param("size") long size,
      @Param("modified") long modified);

  @Insert(
      """
      insert into taken_in (workspace_id, path, size_bytes, modified_ms, archive_id)
      values (#{workspace}, #{path}, #{size}, #{modified}, #{archive})
      on conflict (workspace_id, path) do update
      set size_bytes = #{size}, modified_ms = #{modified}, archive_id = #{archive}
      """)
  void setTaken(
      @Param("workspace") long workspace,
      @Param("path") String path,
      @Param("size") long size,
      @Param("modified") long modified,
      @Param("archive") long archive);
}
