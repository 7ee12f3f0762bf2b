package ironing.server.library;

import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Where libraries lie. */
@Mapper
interface StorageMapper {
  @Select("select library_folder from workspace where id = #{workspace}")
  String folder(long workspace);

  @Update("update workspace set library_folder = #{folder} where id = #{workspace}")
  void setFolder(@Param("workspace") long workspace, @Param("folder") String folder);
}
