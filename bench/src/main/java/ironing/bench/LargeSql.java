package ironing.bench;

import java.io.BufferedOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;

/**
 * Prints what puts {@link LargeWorld} into the database of a running Ironing, for {@code psql}: the
 * rows that installing two thousand archives would leave, and no file on disk. The workspace has
 * one mod already, whose card the others get.
 *
 * <p>Usage: {@code LargeSql WORKSPACE | psql}.
 */
public final class LargeSql {
  static final long FIRST = 1_000_000;

  private LargeSql() {}

  public static void main(String[] args) {
    long workspace = Long.parseLong(args[0]);
    PrintStream out =
        new PrintStream(
            new BufferedOutputStream(System.out, 1 << 16), false, StandardCharsets.UTF_8);
    out.printf(
        """
        begin;
        insert into strand (id, workspace_id) overriding system value
          select %1$d + g, %2$d from generate_series(1, %3$d) as g;
        insert into mod (id, workspace_id, kind, folder, card, card_given, content_root, root_reason, strand_id)
          overriding system value
          select %1$d + g, %2$d, 'archive', 'none' || g, c, c, '', 'made up', %1$d + g
          from generate_series(1, %3$d) as g, lateral (
            select jsonb_set(jsonb_set(card::jsonb, '{id}', to_jsonb('mod-' || g)),
              '{name}', to_jsonb('Mod ' || g))::text as c
            from mod where workspace_id = %2$d and id < %1$d order by id limit 1) as t;
        copy mod_file (mod_id, pack, path, entry, size_bytes, sha256) from stdin;
        """,
        FIRST, workspace, LargeWorld.MODS);
    LargeWorld.files(
        (mod, path, size, sha) ->
            out.print(FIRST + mod + "\t\t" + path + "\t\t" + size + "\t" + sha + "\n"));
    out.print("\\.\n");
    out.printf(
        """
        update profile set arrangement = jsonb_set(arrangement::jsonb, '{layers}',
          (select jsonb_agg(jsonb_build_object('mod', %1$d + g, 'on', true) order by g)
           from generate_series(1, %3$d) as g))::text
        where id = (select profile_id from workspace where id = %2$d);
        commit;
        analyze;
        """,
        FIRST, workspace, LargeWorld.MODS);
    out.flush();
  }
}
