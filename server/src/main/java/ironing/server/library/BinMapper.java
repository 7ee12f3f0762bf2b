package ironing.server.library;

import java.time.OffsetDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** What lies in the bin. */
@Mapper
interface BinMapper {
  record BinnedMod(
      long id,
      long strandId,
      String card,
      String folder,
      String stood,
      OffsetDateTime binnedAt,
      long sizeBytes) {}

  record BinnedArchive(
      long id, String name, String sha256, OffsetDateTime binnedAt, long sizeBytes) {}

  @Update(
      """
      update mod set binned_at = now(), stood = #{stood}
      where id = #{mod} and binned_at is null
      """)
  void binMod(@Param("mod") long mod, @Param("stood") String stood);

  @Update("update mod set binned_at = null, stood = null where id = #{mod}")
  void returnMod(long mod);

  @Update("update archive set binned_at = now() where id = #{archive}")
  void binArchive(long archive);

  @Update("update archive set binned_at = null where id = #{archive}")
  void returnArchive(long archive);

  @Select(
      """
      select id, strand_id, card, folder, stood, binned_at,
        (select coalesce(sum(size_bytes), 0) from mod_file f where f.mod_id = m.id and pack = '')
          as size_bytes
      from mod m where workspace_id = #{workspace} and binned_at is not null and former_of is null
      order by binned_at desc
      """)
  List<BinnedMod> mods(long workspace);

  @Select(
      """
      select id, name, sha256, binned_at, size_bytes from archive
      where workspace_id = #{workspace} and binned_at is not null order by binned_at desc
      """)
  List<BinnedArchive> archives(long workspace);

  @Delete(
      """
      delete from mod
      where workspace_id = #{workspace} and binned_at is not null and former_of is null
      """)
  void deleteMods(long workspace);

  /** Archives of which nothing in the library is made any more. */
  @Delete(
      """
      delete from archive a where workspace_id = #{workspace} and binned_at is not null
        and not exists (select 1 from mod m where m.archive_id = a.id)
      """)
  void deleteArchives(long workspace);

  @Delete(
      """
      delete from strand s where workspace_id = #{workspace}
        and not exists (select 1 from mod m where m.strand_id = s.id)
      """)
  void deleteStrands(long workspace);
}
