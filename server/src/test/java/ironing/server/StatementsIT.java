package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.testkit.Archives;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.SharedServer;
import ironing.server.testkit.TestServer;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import org.apache.ibatis.cache.CacheKey;
import org.apache.ibatis.executor.Executor;
import org.apache.ibatis.mapping.BoundSql;
import org.apache.ibatis.mapping.MappedStatement;
import org.apache.ibatis.plugin.Interceptor;
import org.apache.ibatis.plugin.Intercepts;
import org.apache.ibatis.plugin.Invocation;
import org.apache.ibatis.plugin.Signature;
import org.apache.ibatis.session.ResultHandler;
import org.apache.ibatis.session.RowBounds;
import org.apache.ibatis.session.SqlSessionFactory;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.JdbcTemplate;

/** How many statements a request sends to the database does not grow with what is there. */
@ExtendWith(SharedServer.class)
class StatementsIT {
  private static final Counter COUNTER = new Counter();

  @Intercepts({
    @Signature(
        type = Executor.class,
        method = "query",
        args = {MappedStatement.class, Object.class, RowBounds.class, ResultHandler.class}),
    @Signature(
        type = Executor.class,
        method = "query",
        args = {
          MappedStatement.class,
          Object.class,
          RowBounds.class,
          ResultHandler.class,
          CacheKey.class,
          BoundSql.class
        }),
    @Signature(
        type = Executor.class,
        method = "update",
        args = {MappedStatement.class, Object.class})
  })
  private static final class Counter implements Interceptor {
    private final AtomicInteger statements = new AtomicInteger();

    @Override
    public Object intercept(Invocation invocation) throws ReflectiveOperationException {
      statements.incrementAndGet();
      return invocation.proceed();
    }
  }

  @TempDir Path temp;
  private Api api;
  private String base;
  private Path game;
  private long workspace;

  @BeforeEach
  void a_workspace(TestServer server) {
    api = server.api();
    game = Games.plain(temp.resolve("game"));
    workspace = api.workspace(game);
    base = "/api/workspaces/" + workspace;
    if (server.bean(SqlSessionFactory.class).getConfiguration().getInterceptors().stream()
        .noneMatch(i -> i == COUNTER))
      server.bean(SqlSessionFactory.class).getConfiguration().addInterceptor(COUNTER);
  }

  /** Those of a request that has been asked once before. */
  private int statements(String path) {
    api.get(base + path);
    int before = COUNTER.statements.get();
    api.get(base + path);
    return COUNTER.statements.get() - before;
  }

  @Test
  void of_saves(TestServer server) throws IOException {
    String text = Games.PLAIN + "protect: [ \"saves/**\" ]\n";
    api.send("PUT", base + "/definition", Map.of("definition", text), Map.of("Prefer", "wait=60"));
    server
        .bean(JdbcTemplate.class)
        .update(
            "insert into run (workspace_id, profile_id, started_at, ended_at, exit_code, output, log)"
                + " select id, profile_id, now() - interval '1 minute', now() + interval '1 hour', 0, '', '{}'"
                + " from workspace where id = "
                + workspace);
    Path saves = Files.createDirectories(game.resolve("saves"));
    for (int i = 0; i < 3; i++) Files.writeString(saves.resolve("day-" + i), "x");
    int few = statements("/saves");
    for (int i = 3; i < 60; i++) Files.writeString(saves.resolve("day-" + i), "x");
    assertThat(api.get(base + "/saves").findValuesAsText("path")).hasSize(60);
    assertThat(statements("/saves")).isEqualTo(few).isPositive();
  }

  @Test
  void of_a_move_whatever_lies_behind() {
    long low = api.install(workspace, "a.zip", Archives.zip(Map.of("a.txt", "1"))).result();
    api.install(workspace, "b.zip", Archives.zip(Map.of("b.txt", "2"))).result();
    move(low, 2);
    int before = COUNTER.statements.get();
    move(low, 1);
    int first = COUNTER.statements.get() - before;
    for (int i = 0; i < 20; i++) move(low, 1 + (i + 1) % 2);
    before = COUNTER.statements.get();
    move(low, 2);
    assertThat(COUNTER.statements.get() - before).isEqualTo(first).isPositive();
  }

  private void move(long mod, int to) {
    api.change("POST", base + "/layers/move", Map.of("mods", List.of(mod), "to", to));
  }

  @Test
  void what_is_looked_for_by_workspace_or_profile_has_an_index(TestServer server) {
    List<String> indexes =
        server
            .bean(JdbcTemplate.class)
            .queryForList(
                "select indexdef from pg_indexes where schemaname = current_schema()",
                String.class);
    for (String wanted :
        List.of(
            "run USING btree (workspace_id, id)",
            "change USING btree (profile_id, id) WHERE",
            "change USING btree (workspace_id, id)"))
      assertThat(indexes).as(wanted).anyMatch(i -> i.contains(wanted));
  }
}
