package ironing.server.deploy;

import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface DeployMapper {
  /** A loose file of the unmodded game. */
  record BaselineRow(String path, long sizeBytes, long modifiedMs, String sha256) {}

  @Select(
      """
      select path, size_bytes, modified_ms, sha256 from game_file
      where workspace_id = #{workspace} and pack = ''
      """)
  List<BaselineRow> baseline(long workspace);
}
