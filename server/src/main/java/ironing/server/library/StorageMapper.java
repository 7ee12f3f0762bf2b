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

  /** From here on the library lies there, and what lies at the other place is litter. */
  @Update(
      """
      update workspace set library_folder = #{folder}, library_litter = #{litter}
      where id = #{workspace}
      """)
  void setFolder(
      @Param("workspace") long workspace,
      @Param("folder") String folder,
      @Param("litter") String litter);

  @Update("update workspace set library_litter = #{litter} where id = #{workspace}")
  void setLitter(@Param("workspace") long workspace, @Param("litter") String litter);

  @Select("select library_litter from workspace where id = #{workspace}")
  String litter(long workspace);
}
