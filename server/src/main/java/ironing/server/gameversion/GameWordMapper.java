package ironing.server.gameversion;

import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** What the user says of mods and the versions of the game. */
@Mapper
interface GameWordMapper {
  /**
   * @param verdict works or broken; null for nothing
   * @param game the version that the verdict was said with
   */
  record WordRow(long strandId, boolean essential, String verdict, String game, String waitsFor) {}

  @Select(
      """
      select strand_id, is_essential as essential, verdict, game, waits_for
      from game_word w join strand s on s.id = w.strand_id where s.workspace_id = #{workspace}
      """)
  List<WordRow> all(long workspace);

  @Insert(
      """
      insert into game_word (strand_id, is_essential, verdict, game, waits_for)
      values (#{strand}, #{essential}, #{verdict}, #{game}, #{waitsFor})
      on conflict (strand_id) do update set is_essential = #{essential}, verdict = #{verdict},
        game = #{game}, waits_for = #{waitsFor}
      """)
  void say(
      @Param("strand") long strand,
      @Param("essential") boolean essential,
      @Param("verdict") String verdict,
      @Param("game") String game,
      @Param("waitsFor") String waitsFor);
}
