package ironing.server.drift;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

@Mapper
interface DriftMapper {
  /** A file that is to be left as it is while it has this content. */
  record LeftAlone(String path, String sha256) {}

  @Select("select path, sha256 from left_alone where workspace_id = #{workspace}")
  List<LeftAlone> leftAlone(long workspace);

  @Insert(
      """
      insert into left_alone (workspace_id, path, sha256) values (#{workspace}, #{path}, #{sha256})
      on conflict (workspace_id, path) do update set sha256 = excluded.sha256, at = now()
      """)
  void leave(
      @Param("workspace") long workspace,
      @Param("path") String path,
      @Param("sha256") String sha256);

  @Delete("delete from left_alone where workspace_id = #{workspace}")
  void tellAgain(long workspace);
}
