package ironing.server.workbench;

import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** Which workspaces there are. */
@Mapper
public interface WorkspaceIds {
  @Select("select id from workspace order by id")
  List<Long> all();
}
