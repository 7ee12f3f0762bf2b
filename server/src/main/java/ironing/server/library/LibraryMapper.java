package ironing.server.library;

import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import org.apache.ibatis.annotations.Arg;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.apache.ibatis.type.ArrayTypeHandler;

/** Archives, mods and their files, as the database has them. What lies in the bin is not seen. */
@Mapper
interface LibraryMapper {
  /**
   * @param mods how many mods were made of it
   * @param mod the first of them, 0 for none
   * @param look what looking into it came to, as JSON; null before
   */
  record ArchiveRow(
      long id,
      String name,
      String sha256,
      long sizeBytes,
      OffsetDateTime broughtAt,
      int mods,
      long mod,
      String look) {}

  /**
   * @param fitting as {@link ModStore.Fitted}, null without
   */
  record ModRow(
      long id,
      long strandId,
      long archiveId,
      String kind,
      String folder,
      String card,
      String cardGiven,
      String contentRoot,
      String rootReason,
      String choices,
      String fitting,
      OffsetDateTime installedAt) {}

  record StoredFile(String pack, String path, String entry, long sizeBytes, String sha256) {}

  /**
   * @param stored where its bytes lie below the mod's folder, null for its own place
   * @param givenSha256 what came in the archive, null while it is as it came
   */
  record FileRow(
      String pack,
      String path,
      String entry,
      long sizeBytes,
      String sha256,
      String stored,
      String givenSha256) {}

  record StoredLeftOut(String entry, String reason, long sizeBytes, boolean kept, boolean chosen) {}

  String ARCHIVE =
      """
      select a.id, a.name, a.sha256, a.size_bytes, a.brought_at, a.look,
        (select count(*) from mod m where m.archive_id = a.id and m.binned_at is null) as mods,
        coalesce((select min(id) from mod m where m.archive_id = a.id and m.binned_at is null), 0)
          as mod
      from archive a
      """;

  @Select(ARCHIVE + "where a.workspace_id = #{workspace} and a.binned_at is null order by a.id")
  List<ArchiveRow> archives(long workspace);

  @Select(ARCHIVE + "where a.workspace_id = #{workspace} and a.id = #{id}")
  ArchiveRow archive(@Param("workspace") long workspace, @Param("id") long id);

  @Select(ARCHIVE + "where a.workspace_id = #{workspace} and a.sha256 = #{sha256}")
  ArchiveRow archiveBySha(@Param("workspace") long workspace, @Param("sha256") String sha256);

  @Select("select distinct sha256 from archive where workspace_id = #{workspace}")
  List<String> archiveHashes(long workspace);

  /** One that lies in the bin comes back by this. */
  @Insert(
      """
      insert into archive (workspace_id, name, sha256, size_bytes)
      values (#{workspace}, #{name}, #{sha256}, #{size})
      on conflict (workspace_id, sha256) do update set binned_at = null
      """)
  void addArchive(
      @Param("workspace") long workspace,
      @Param("name") String name,
      @Param("sha256") String sha256,
      @Param("size") long size);

  @Update("update archive set look = #{look} where id = #{archive}")
  void setLook(@Param("archive") long archive, @Param("look") String look);

  @Select(
      """
      insert into strand (workspace_id) values (#{workspace}) returning id
      """)
  long addStrand(long workspace);

  @Select(
      """
      insert into mod (workspace_id, strand_id, archive_id, kind, folder, card, card_given,
        content_root, root_reason, choices, fitting)
      values (#{workspace}, #{strand}, #{archive}, #{kind}, #{folder}, #{card}, #{card}, #{root},
        #{reason}, #{choices}, #{fitting})
      returning id
      """)
  long addMod(
      @Param("workspace") long workspace,
      @Param("strand") long strand,
      @Param("archive") Long archive,
      @Param("kind") String kind,
      @Param("folder") String folder,
      @Param("card") String card,
      @Param("root") String root,
      @Param("reason") String reason,
      @Param("choices") String choices,
      @Param("fitting") String fitting);

  @Update(
      """
      update mod set folder = #{folder}, card = #{card}, card_given = #{card} where id = #{mod}
      """)
  void setContent(
      @Param("mod") long mod, @Param("folder") String folder, @Param("card") String card);

  @Update(
      """
      update mod set folder = #{folder}, content_root = #{root}, root_reason = #{reason},
        choices = #{choices}, fitting = #{fitting}
      where id = #{mod}
      """)
  void setLayout(
      @Param("mod") long mod,
      @Param("folder") String folder,
      @Param("root") String root,
      @Param("reason") String reason,
      @Param("choices") String choices,
      @Param("fitting") String fitting);

  @Update("update mod set folder = #{folder} where id = #{mod}")
  void setFolder(@Param("mod") long mod, @Param("folder") String folder);

  @Update("update mod set card = #{card} where id = #{mod}")
  void setCard(@Param("mod") long mod, @Param("card") String card);

  @Delete("delete from mod_file where mod_id = #{mod}")
  void clearFiles(long mod);

  @Delete("delete from left_out where mod_id = #{mod}")
  void clearLeftOut(long mod);

  @Insert(
      """
      <script>insert into mod_file (mod_id, pack, path, entry, size_bytes, sha256) values
      <foreach collection='rows' item='r' separator=','>
      (#{mod}, #{r.pack}, #{r.path}, #{r.entry}, #{r.sizeBytes}, #{r.sha256})</foreach></script>
      """)
  void addFiles(@Param("mod") long mod, @Param("rows") List<StoredFile> rows);

  @Insert(
      """
      <script>insert into left_out (mod_id, entry, reason, size_bytes, kept, chosen) values
      <foreach collection='rows' item='r' separator=','>
      (#{mod}, #{r.entry}, #{r.reason}, #{r.sizeBytes}, #{r.kept}, #{r.chosen})</foreach></script>
      """)
  void addLeftOut(@Param("mod") long mod, @Param("rows") List<StoredLeftOut> rows);

  String FILE =
      """
      select pack, path, entry, size_bytes, sha256, stored, given_sha256 from mod_file
      where mod_id = #{mod}
      """;

  @Select(FILE + "order by pack, path limit #{limit} offset #{offset}")
  List<FileRow> files(
      @Param("mod") long mod, @Param("limit") int limit, @Param("offset") int offset);

  /** The files of a mod column by column; null where it has none. */
  record FileColumns(
      String[] packs,
      String[] paths,
      String[] entries,
      Long[] sizes,
      String[] hashes,
      String[] stored,
      String[] given) {}

  // an object for each row costs many times as much, where they are hundreds of thousands
  @Arg(column = "packs", javaType = String[].class, typeHandler = ArrayTypeHandler.class)
  @Arg(column = "paths", javaType = String[].class, typeHandler = ArrayTypeHandler.class)
  @Arg(column = "entries", javaType = String[].class, typeHandler = ArrayTypeHandler.class)
  @Arg(column = "sizes", javaType = Long[].class, typeHandler = ArrayTypeHandler.class)
  @Arg(column = "hashes", javaType = String[].class, typeHandler = ArrayTypeHandler.class)
  @Arg(column = "stored", javaType = String[].class, typeHandler = ArrayTypeHandler.class)
  @Arg(column = "given", javaType = String[].class, typeHandler = ArrayTypeHandler.class)
  @Select(
      """
      select array_agg(pack) as packs, array_agg(path) as paths, array_agg(entry) as entries,
        array_agg(size_bytes) as sizes, array_agg(sha256) as hashes,
        array_agg(stored) as stored, array_agg(given_sha256) as given
      from (
      """
          + FILE
          + " order by pack, path) f")
  FileColumns fileColumns(long mod);

  /** All files of a mod, by pack and path. */
  default List<FileRow> allFiles(long mod) {
    FileColumns c = fileColumns(mod);
    if (c == null) return List.of();
    List<FileRow> rows = new ArrayList<>(c.paths.length);
    for (int i = 0; i < c.paths.length; i++)
      rows.add(
          new FileRow(
              c.packs[i],
              c.paths[i],
              c.entries[i],
              c.sizes[i],
              c.hashes[i],
              c.stored[i],
              c.given[i]));
    return rows;
  }

  /** Loose files whose names could be those of something to read; {@link Reading} decides. */
  @Select(FILE + "and pack = '' and path ~* #{names} order by path")
  List<FileRow> filesNamed(@Param("mod") long mod, @Param("names") String names);

  @Select(FILE + "and pack = '' and path = #{path}")
  FileRow file(@Param("mod") long mod, @Param("path") String path);

  @Select("select count(*) from mod_file where mod_id = #{mod}")
  int fileCount(long mod);

  @Update(
      """
      update mod_file set stored = #{stored}, sha256 = #{sha256}, size_bytes = #{size},
        given_sha256 = coalesce(given_sha256, sha256), given_size = coalesce(given_size, size_bytes)
      where mod_id = #{mod} and pack = '' and path = #{path}
      """)
  void setEdited(
      @Param("mod") long mod,
      @Param("path") String path,
      @Param("stored") String stored,
      @Param("sha256") String sha256,
      @Param("size") long size);

  @Update(
      """
      update mod_file set stored = null, sha256 = given_sha256, size_bytes = given_size,
        given_sha256 = null, given_size = null
      where mod_id = #{mod} and pack = '' and path = #{path} and given_sha256 is not null
      """)
  int setRestored(@Param("mod") long mod, @Param("path") String path);

  @Select(
      """
      select entry, reason, size_bytes, kept, chosen from left_out
      where mod_id = #{mod} order by entry
      """)
  List<StoredLeftOut> leftOut(long mod);

  String MOD =
      """
      select id, strand_id, coalesce(archive_id, 0) as archive_id, kind, folder, card, card_given,
        content_root, root_reason, choices, fitting, installed_at
      from mod
      """;

  @Select(MOD + "where id = #{mod} and workspace_id = #{workspace} and binned_at is null")
  ModRow mod(@Param("workspace") long workspace, @Param("mod") long mod);

  /** The fitting itself may be long: it is read one by one. */
  @Select(
      """
      select id from mod
      where workspace_id = #{workspace} and fitting is not null and binned_at is null
      """)
  List<Long> fittedMods(long workspace);

  @Select(
      """
      select id from mod
      where workspace_id = #{workspace} and card_id = #{cardId} and binned_at is null
        and kind = 'archive'
      order by id
      """)
  List<Long> modsOfId(@Param("workspace") long workspace, @Param("cardId") String cardId);

  @Update(
      """
      update archive set binned_at = null
      where id = (select archive_id from mod where id = #{mod})
      """)
  void returnArchiveOf(long mod);

  @Select("select folder from mod where workspace_id = #{workspace}")
  List<String> folders(long workspace);
}
