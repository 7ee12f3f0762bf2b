package ironing.server.layers;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** What the user wrote of two mods together. */
@Mapper
interface PairNotesMapper {
  record PairNoteRow(long lowerStrand, long upperStrand, String note, String at) {}

  @Select(
      """
      select lower_strand, upper_strand, note,
        to_char(at at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at
      from pair_note where workspace_id = #{workspace} order by at desc, lower_strand, upper_strand
      """)
  List<PairNoteRow> all(long workspace);

  @Insert(
      """
      insert into pair_note (workspace_id, lower_strand, upper_strand, note)
      values (#{workspace}, least(#{a}, #{b}), greatest(#{a}, #{b}), #{note})
      on conflict (lower_strand, upper_strand) do update set note = excluded.note, at = now()
      """)
  void put(
      @Param("workspace") long workspace,
      @Param("a") long a,
      @Param("b") long b,
      @Param("note") String note);

  @Delete(
      """
      delete from pair_note
      where lower_strand = least(#{a}, #{b}) and upper_strand = greatest(#{a}, #{b})
      """)
  void drop(@Param("a") long a, @Param("b") long b);
}
