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
                    "decisions": {"A.plug/1": {"name": {"take": "A.plug"}}}, "fileChoices": {},
                    "heldBack": {"2": ["data/x"]}}'::jsonb
                  from profile
                  """))
          .containsExactly("t");
      assertThat(ask(database, "select profile_id, revision from workspace"))
          .containsExactly("1|7");
      assertThat(ask(database, "select workspace_id, origin, said from change"))
          .containsExactly("1|user|Moved");
    }
  }

  @Test
  void mods_on_offer_are_found_by_archive_and_side_whatever_else_their_lines_say()
      throws SQLException {
    try (Database database = Database.empty()) {
      migrate(database, "21");
      run(
          database,
          """
          insert into workspace (title, game_folder, definition) values ('W', '/g', 'x');
          insert into catalogue (workspace_id, address, position) values (1, '/c', 1);
          insert into offered_mod (catalogue_id, mod, part, name, game, tags, authors, newest_at,
            versions, ranges, needs, words, line)
          select 1, m, 'p', m, 'g', '{}', '{}', '', '{}', '{}', '{}', '', l from (values
            ('span', '{"releases":[{"file":{"sha256":"0000000000000ff0"},"for":[{"mod":"a"},{"mod":"b"}]},
                {"file":{"sha256":"000000000000100f"},"for":[{"mod":"a"}]}]}'),
            ('bare', '{"releases":[]}'),
            ('odd', '{"releases":[{"file":{"sha256":"0000000000000ff0"}}],"more":"\\u0000"}')
          ) as lines (m, l);
          """);
      migrate(database, "latest");
      assertThat(ask(database, "select mod, files, sides from offered_mod order by mod"))
          .as("the database can hold no character 0")
          .containsExactly("bare|{}|{}", "odd|{}|{}", "span|{255,256}|{a,b}");
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

  @Test
  void decisions_that_were_texts_have_members_of_their_own_wherever_they_are_kept()
      throws SQLException {
    String was =
        """
        {"layers":[],"decisions":{"A.plug/1":{"speed":"One.plug","/seen speed":"3f","name":"/value \\"X\\"",
        "(record)":"/before","hold":"/removed","route":"/merged"},
        "file:data/a.csv":{"/base":"{\\"take\\":[\\"\\"],\\"text\\":null}",
        "line 2":"{\\"take\\":[\\"m\\"],\\"text\\":null}"}}}""";
    try (Database database = Database.empty()) {
      migrate(database, "18");
      run(
          database,
          "insert into workspace (title, game_folder, definition) values ('W', '/g', 'x');"
              + " insert into profile (workspace_id, name, arrangement) values (1, 'P', '"
              + was
              + "'), (1, 'Q', '{\"decisions\":{\"A.plug/1\":12}, broken'),"
              + " (1, 'R', '{\"decisions\":{}}');"
              + " insert into restore_point (profile_id, name, arrangement) values (1, 'p', '"
              + was
              + "'); insert into change (workspace_id, profile_id, said, before, after)"
              + " values (1, 1, 's', '{\"decisions\":{}}', '"
              + was
              + "')");
      migrate(database, "latest");
      String record =
          "with a as (select %s::jsonb -> 'decisions' -> 'A.plug/1' as d from %s where id = 1) select"
              + " d->'speed'->>'take', d->'speed'->>'seen', d->'name'->>'own',"
              + " d->'(record)'->>'outcome', d->'hold'->>'outcome', d->'route'->>'outcome',"
              + " (select count(*) from jsonb_object_keys(d)) from a";
      String file =
          "with a as (select %s::jsonb -> 'fileChoices' -> 'data/a.csv' as d from %s where id = 1)"
              + " select '<' || (d->>'base') || '>', d->'places'->'line 2'->'take'->>0 from a";
      for (String[] of :
          new String[][] {
            {"arrangement", "profile"}, {"arrangement", "restore_point"}, {"after", "change"}
          }) {
        assertThat(ask(database, record.formatted(of[0], of[1])))
            .containsExactly("One.plug|3f|\"X\"|AS_BEFORE|REMOVED|MERGED|5");
        assertThat(ask(database, file.formatted(of[0], of[1]))).containsExactly("<>|m");
      }
      assertThat(ask(database, "select before from change"))
          .containsExactly("{\"decisions\": {}, \"fileChoices\": {}}");
      assertThat(ask(database, "select arrangement from profile where id > 1 order by id"))
          .as("what is no document stays as it is, and what has no decision too")
          .containsExactly("{\"decisions\":{\"A.plug/1\":12}, broken", "{\"decisions\":{}}");
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
