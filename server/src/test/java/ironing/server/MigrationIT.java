package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.server.testkit.Database;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.Test;

/** A database with mods in it, brought from one version of its schema to the next. */
class MigrationIT {
  @Test
  void mods_of_the_first_version_become_strands_of_their_own_with_their_cards_kept()
      throws SQLException {
    try (Database database = Database.empty()) {
      migrate(database, "1");
      run(
          database,
          """
          insert into workspace (title, game_folder, definition) values ('W', '/g', 'x');
          insert into archive (workspace_id, name, sha256, size_bytes) values (1, 'a.zip', 'aa', 1);
          insert into mod (workspace_id, archive_id, kind, folder, card, content_root, root_reason)
          values (1, 1, 'archive', 'f1', '{"id":"lamp","name":"Lamp"}', '', 'r'),
                 (1, null, 'patch', 'f2', '{"id":"patch","name":"Patch"}', '', 'r');
          insert into mod_file values (1, '', 'data/a.txt', 'a.txt', 1, 'bb');
          insert into left_out values (1, 'readme.md', 'because');
          """);
      migrate(database, "latest");
      assertThat(
              ask(
                  database,
                  "select m.id, s.id is not null, card_id, card_given = card, choices from mod m"
                      + " join strand s on s.id = m.strand_id order by 1"))
          .containsExactly("1|t|lamp|t|{}", "2|t|patch|t|{}");
      assertThat(ask(database, "select count(distinct strand_id) from mod")).containsExactly("2");
      assertThat(ask(database, "select path, stored is null, given_sha256 is null from mod_file"))
          .containsExactly("data/a.txt|t|t");
      assertThat(ask(database, "select entry, size_bytes, kept, chosen from left_out"))
          .containsExactly("readme.md|0|f|f");
    }
  }

  @Test
  void the_arrangement_of_a_profile_becomes_one_document_and_its_changes_stay()
      throws SQLException {
    try (Database database = Database.empty()) {
      migrate(database, "3");
      run(
          database,
          """
          insert into workspace (title, game_folder, definition) values ('W', '/g', 'x');
          insert into strand (workspace_id) values (1), (1);
          insert into mod (workspace_id, kind, folder, card, card_given, content_root, root_reason,
                           strand_id)
          values (1, 'archive', 'f1', '{"id":"a"}', '{}', '', 'r', 1),
                 (1, 'archive', 'f2', '{"id":"b"}', '{}', '', 'r', 2);
          insert into profile (workspace_id, name, revision) values (1, 'Everyday', 7);
          insert into layer values (1, 1, 2, true), (1, 2, 1, false);
          insert into plugin_wish values (1, 1, 'A.plug', true);
          insert into record_decision values (1, 'A.plug/1', 'name', 'A.plug');
          insert into held_back values (1, 2, 'data/x');
          insert into change (profile_id, said, before, after) values (1, 'Moved', '{}', '{}');
          """);
      migrate(database, "latest");
      assertThat(
              ask(
                  database,
                  """
                  select arrangement::jsonb = '{"layers": [{"mod": 2, "on": false},
                    {"mod": 1, "on": true}], "plugins": [{"name": "A.plug", "on": true}],
                    "decisions": {"A.plug/1": {"name": "A.plug"}}, "heldBack": {"2": ["data/x"]}}'::jsonb
                  from profile
                  """))
          .containsExactly("t");
      assertThat(ask(database, "select profile_id, revision from workspace"))
          .containsExactly("1|7");
      assertThat(ask(database, "select workspace_id, origin, said from change"))
          .containsExactly("1|user|Moved");
    }
  }

  /** The SHA-256 of "abc" is the one of RFC 6234, 8.5, TEST1. */
  @Test
  void rows_that_were_packed_before_get_their_digest_and_one_that_is_of_another_day_goes()
      throws SQLException {
    try (Database database = Database.empty()) {
      migrate(database, "13");
      run(
          database,
          """
          insert into workspace (title, game_folder, definition) values ('W', '/g', 'x');
          insert into strand (workspace_id) values (1), (1);
          insert into mod (workspace_id, kind, folder, card, card_given, content_root, root_reason,
                           strand_id, binned_at)
          values (1, 'archive', 'f1', '{"id":"a"}', '{}', '', 'r', 1, null),
                 (1, 'archive', 'f2', '{"id":"b"}', '{}', '', 'r', 2, now());
          insert into mod_index values (1, 'abc'), (2, 'abc');
          insert into game_file values (1, '', 'data/a.txt', 1, 0, 'aa');
          """);
      migrate(database, "latest");
      String abc = "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad";
      assertThat(ask(database, "select mod_id, encode(digest, 'hex') from mod_index order by 1"))
          .containsExactly("1|" + abc, "2|" + abc);
      run(database, "insert into game_index values (1, 'abc')");
      String index =
          "select workspace_id, mod_id, encode(digest, 'hex') from file_index order by 2";
      assertThat(ask(database, index))
          .as("what lies in the bin is not in the picture")
          .containsExactly("1|0|" + abc, "1|1|" + abc);
      run(database, "update game_file set size_bytes = 2");
      assertThat(ask(database, index)).containsExactly("1|1|" + abc);
      run(database, "insert into mod_file values (1, '', 'data/a.txt', 'a.txt', 1, 'bb')");
      assertThat(ask(database, index)).isEmpty();
    }
  }

  private static void migrate(Database database, String target) {
    Flyway.configure().dataSource(database.url(), null, null).target(target).load().migrate();
  }

  private static void run(Database database, String sql) throws SQLException {
    try (Connection c = DriverManager.getConnection(database.url());
        Statement s = c.createStatement()) {
      s.execute(sql);
    }
  }

  private static List<String> ask(Database database, String sql) throws SQLException {
    List<String> rows = new ArrayList<>();
    try (Connection c = DriverManager.getConnection(database.url());
        Statement s = c.createStatement();
        ResultSet r = s.executeQuery(sql)) {
      while (r.next()) {
        List<String> row = new ArrayList<>();
        for (int i = 1; i <= r.getMetaData().getColumnCount(); i++) row.add(r.getString(i));
        rows.add(String.join("|", row));
      }
    }
    return rows;
  }
}
