package ironing.server.workspace;

import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Files of the game as they were before an update, with their bytes. */
@Mapper
interface FormerFileMapper {
  record FormerRow(String path, String version, String sha256) {}

  /** With each version of the game in which a kept file was so; the oldest first. */
  @Select(
      """
      select k.path, e.version, k.sha256
      from former_file k
      join earlier_game e on e.workspace_id = k.workspace_id
      join earlier_game_file f
        on f.earlier_id = e.id and f.pack = k.pack and f.path = k.path and f.sha256 = k.sha256
      where k.workspace_id = #{workspace} order by e.id
      """)
  List<FormerRow> of(long workspace);

  /** In one object, since MyBatis takes an array of bytes for a row of numbers. */
  record Content(byte[] content) {}

  @Select(
      """
      select content from former_file
      where workspace_id = #{workspace} and sha256 = #{sha256} limit 1
      """)
  Content content(@Param("workspace") long workspace, @Param("sha256") String sha256);

  @Insert(
      """
      insert into former_file (workspace_id, pack, path, sha256, content)
      values (#{workspace}, #{pack}, #{path}, #{sha256}, #{content}) on conflict do nothing
      """)
  void keep(
      @Param("workspace") long workspace,
      @Param("pack") String pack,
      @Param("path") String path,
      @Param("sha256") String sha256,
      @Param("content") byte[] content);
}
