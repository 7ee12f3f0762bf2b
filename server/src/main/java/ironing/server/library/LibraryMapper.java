package ironing.server.library;

import java.time.OffsetDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface LibraryMapper {
  record ArchiveRow(
      long id, String name, String sha256, long sizeBytes, OffsetDateTime broughtAt, long mod) {}

  record ModDetailRow(long id, String contentRoot, String rootReason, OffsetDateTime installedAt) {}

  record StoredFile(String pack, String path, String entry, long sizeBytes, String sha256) {}

  record StoredLeftOut(String entry, String reason) {}

  String ARCHIVE =
      """
      select a.id, a.name, a.sha256, a.size_bytes, a.brought_at, coalesce(m.id, 0) as mod
      from archive a left join mod m on m.archive_id = a.id
      """;

  @Select(ARCHIVE + "where a.workspace_id = #{workspace} order by a.id")
  List<ArchiveRow> archives(long workspace);

  @Select(ARCHIVE + "where a.workspace_id = #{workspace} and a.id = #{id}")
  ArchiveRow archive(@Param("workspace") long workspace, @Param("id") long id);

  @Select(ARCHIVE + "where a.workspace_id = #{workspace} and a.sha256 = #{sha256}")
  ArchiveRow archiveBySha(@Param("workspace") long workspace, @Param("sha256") String sha256);

  @Select("select distinct sha256 from archive where workspace_id = #{workspace}")
  List<String> archiveHashes(long workspace);

  @Insert(
      """
      insert into archive (workspace_id, name, sha256, size_bytes)
      values (#{workspace}, #{name}, #{sha256}, #{size}) on conflict do nothing
      """)
  void addArchive(
      @Param("workspace") long workspace,
      @Param("name") String name,
      @Param("sha256") String sha256,
      @Param("size") long size);

  @Select(
      """
      insert into mod (workspace_id, archive_id, kind, folder, card, content_root, root_reason)
      values (#{workspace}, #{archive}, #{kind}, #{folder}, #{card}, #{root}, #{reason})
      returning id
      """)
  long addMod(
      @Param("workspace") long workspace,
      @Param("archive") Long archive,
      @Param("kind") String kind,
      @Param("folder") String folder,
      @Param("card") String card,
      @Param("root") String root,
      @Param("reason") String reason);

  @Update("update mod set folder = #{folder}, card = #{card} where id = #{mod}")
  void setContent(
      @Param("mod") long mod, @Param("folder") String folder, @Param("card") String card);

  @Delete("delete from mod_file where mod_id = #{mod}")
  void clearFiles(long mod);

  @Insert(
      """
      <script>insert into mod_file (mod_id, pack, path, entry, size_bytes, sha256) values
      <foreach collection='rows' item='r' separator=','>
      (#{mod}, #{r.pack}, #{r.path}, #{r.entry}, #{r.sizeBytes}, #{r.sha256})</foreach></script>
      """)
  void addFiles(@Param("mod") long mod, @Param("rows") List<StoredFile> rows);

  @Insert(
      """
      <script>insert into left_out (mod_id, entry, reason) values
      <foreach collection='rows' item='r' separator=','>
      (#{mod}, #{r.entry}, #{r.reason})</foreach></script>
      """)
  void addLeftOut(@Param("mod") long mod, @Param("rows") List<StoredLeftOut> rows);

  @Select(
      """
      select pack, path, entry, size_bytes, sha256 from mod_file
      where mod_id = #{mod} order by pack, path limit #{limit} offset #{offset}
      """)
  List<StoredFile> files(
      @Param("mod") long mod, @Param("limit") int limit, @Param("offset") int offset);

  @Select("select count(*) from mod_file where mod_id = #{mod}")
  int fileCount(long mod);

  @Select("select entry, reason from left_out where mod_id = #{mod} order by entry")
  List<StoredLeftOut> leftOut(long mod);

  @Select(
      """
      select id, content_root, root_reason, installed_at from mod
      where id = #{mod} and workspace_id = #{workspace}
      """)
  ModDetailRow mod(@Param("workspace") long workspace, @Param("mod") long mod);

  @Select("select folder from mod where workspace_id = #{workspace}")
  List<String> folders(long workspace);
}
