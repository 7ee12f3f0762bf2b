package ironing.server.workspace;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import org.apache.ibatis.annotations.Arg;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.type.ArrayTypeHandler;

/** The files of the game and of each mod, each in one row that is packed by {@link PackedFiles}. */
@Mapper
interface FileIndexMapper {
  /**
   * @param modId 0 for the game
   */
  record IndexRow(long modId, byte[] files) {}

  /** Some at a time, so that not all of them are in memory twice; from the game on. */
  @Select(
      """
      select mod_id, files from file_index
      where workspace_id = #{workspace} and mod_id > #{after} order by mod_id limit #{limit}
      """)
  List<IndexRow> indexes(
      @Param("workspace") long workspace, @Param("after") long after, @Param("limit") int limit);

  /** Those of some mods, or of the game. */
  @Select(
      """
      <script>
      select mod_id, files from file_index where workspace_id = #{workspace} and mod_id in
      <foreach item="mod" collection="mods" open="(" separator="," close=")">#{mod}</foreach>
      order by mod_id
      </script>
      """)
  List<IndexRow> indexesOf(
      @Param("workspace") long workspace, @Param("mods") Collection<Long> mods);

  /**
   * What {@link #indexes} would give, by its digests, in order of the mods.
   *
   * @param digests in hex; another one when {@link IndexRow#files} is another; null where files are
   *     not packed yet, or have changed since
   */
  record Digests(Long[] mods, String[] digests) {}

  @Arg(column = "mods", javaType = Long[].class, typeHandler = ArrayTypeHandler.class)
  @Arg(column = "digests", javaType = String[].class, typeHandler = ArrayTypeHandler.class)
  @Select(
      """
      select array_agg(id) as mods, array_agg(encode(digest, 'hex')) as digests from (
        select 0::bigint as id, (select digest from game_index where workspace_id = #{workspace})
        union all
        select m.id, i.digest from mod m left join mod_index i on i.mod_id = m.id
        where m.workspace_id = #{workspace} and m.binned_at is null
        order by id) as each
      """)
  Digests digests(long workspace);

  /** How many bytes {@link #indexes} will give. */
  @Select(
      """
      select coalesce(sum(octet_length(files)), 0) from file_index where workspace_id = #{workspace}
      """)
  long bytes(long workspace);

  /** Another text when anything that {@link #indexes} gives is another. */
  @Select(
      """
      select encode(sha256(coalesce(
        string_agg(int8send(mod_id) || digest, ''::bytea order by mod_id), ''::bytea)), 'hex')
      from file_index where workspace_id = #{workspace}
      """)
  String digest(long workspace);

  /** Files column by column; null where there are none. */
  record FileColumns(
      String[] packs, String[] paths, Long[] sizes, String[] hashes, String[] stored) {
    List<PackedFiles.File> files() {
      List<PackedFiles.File> files = new ArrayList<>(paths.length);
      for (int i = 0; i < paths.length; i++)
        files.add(new PackedFiles.File(packs[i], paths[i], sizes[i], hashes[i], stored[i]));
      return files;
    }
  }

  String COLUMNS =
      """
      select array_agg(pack) as packs, array_agg(path) as paths, array_agg(size_bytes) as sizes,
        array_agg(sha256) as hashes, array_agg(stored) as stored
      from (
      """;

  // an object for each row costs many times as much, where they are hundreds of thousands
  @Arg(column = "packs", javaType = String[].class, typeHandler = ArrayTypeHandler.class)
  @Arg(column = "paths", javaType = String[].class, typeHandler = ArrayTypeHandler.class)
  @Arg(column = "sizes", javaType = Long[].class, typeHandler = ArrayTypeHandler.class)
  @Arg(column = "hashes", javaType = String[].class, typeHandler = ArrayTypeHandler.class)
  @Arg(column = "stored", javaType = String[].class, typeHandler = ArrayTypeHandler.class)
  @Select(
      COLUMNS
          + """
          select pack, path, size_bytes, sha256, stored from mod_file
          where mod_id = #{mod} order by pack, path) f
          """)
  FileColumns modColumns(long mod);

  default List<PackedFiles.File> modFiles(long mod) {
    FileColumns c = modColumns(mod);
    return c == null ? List.of() : c.files();
  }

  @Arg(column = "packs", javaType = String[].class, typeHandler = ArrayTypeHandler.class)
  @Arg(column = "paths", javaType = String[].class, typeHandler = ArrayTypeHandler.class)
  @Arg(column = "sizes", javaType = Long[].class, typeHandler = ArrayTypeHandler.class)
  @Arg(column = "hashes", javaType = String[].class, typeHandler = ArrayTypeHandler.class)
  @Arg(column = "stored", javaType = String[].class, typeHandler = ArrayTypeHandler.class)
  @Select(
      COLUMNS
          + """
          select pack, path, size_bytes, sha256, null::text as stored from game_file
          where workspace_id = #{workspace} order by pack, path) f
          """)
  FileColumns gameColumns(long workspace);

  default List<PackedFiles.File> gameFiles(long workspace) {
    FileColumns c = gameColumns(workspace);
    return c == null ? List.of() : c.files();
  }

  @Insert(
      """
      insert into mod_index (mod_id, files) values (#{mod}, #{files})
      on conflict (mod_id) do update set files = excluded.files
      """)
  void putMod(@Param("mod") long mod, @Param("files") byte[] files);

  @Insert(
      """
      insert into game_index (workspace_id, files) values (#{workspace}, #{files})
      on conflict (workspace_id) do update set files = excluded.files
      """)
  void putGame(@Param("workspace") long workspace, @Param("files") byte[] files);
}
