package ironing.core.trouble;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.testkit.Tries;
import ironing.core.trouble.FaultyWorld.Course;
import ironing.core.trouble.Members.Need;
import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * The search against {@code git bisect run} (git-bisect(1)) on a build-up of 64 steps, of which
 * each needs the one before: as many tries or fewer.
 */
class GitBisectTest {
  private static final int STEPS = 64;
  @TempDir Path temp;
  private Path repository;

  /** One commit that is good, and 64 of which a file says how many there are. */
  @BeforeEach
  void aLineOfCommits() throws IOException, InterruptedException {
    repository = Files.createDirectory(temp.resolve("steps"));
    git("init", "--quiet", "--initial-branch=main");
    StringBuilder stream = new StringBuilder();
    for (int i = 0; i <= STEPS; i++) {
      String n = Integer.toString(i);
      stream
          .append("commit refs/heads/main\nmark :" + (i + 1) + "\n")
          .append("committer Nobody <nobody@example.org> " + (1_000_000 + i) + " +0000\n")
          .append("data " + n.length() + "\n" + n + "\n")
          .append("M 100644 inline count\ndata " + n.length() + "\n" + n + "\n");
      if (i == 0) stream.append("reset refs/tags/good\nfrom :1\n\n");
    }
    Path file = Files.writeString(temp.resolve("stream"), stream);
    run(file, "fast-import", "--quiet");
  }

  private String git(String... arguments) throws IOException, InterruptedException {
    return run(null, arguments);
  }

  private String run(Path input, String... arguments) throws IOException, InterruptedException {
    List<String> command = new ArrayList<>(List.of("git"));
    command.addAll(List.of(arguments));
    ProcessBuilder builder = new ProcessBuilder(command).directory(repository.toFile());
    // no settings of whoever runs the tests
    builder.environment().put("GIT_CONFIG_GLOBAL", File.separator + "dev/null");
    builder.environment().put("GIT_CONFIG_NOSYSTEM", "1");
    if (input != null) builder.redirectInput(input.toFile());
    Process git = builder.redirectErrorStream(true).start();
    String said = new String(git.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(git.waitFor()).as(said).isZero();
    return said;
  }

  /** How often git tries to find the first that is bad. */
  private int triesOfGit(int bad) throws IOException, InterruptedException {
    Path tried = temp.resolve("tried-" + bad);
    Files.createFile(tried);
    git("bisect", "start", "main", "good");
    String said =
        git(
            "bisect",
            "run",
            "sh",
            "-c",
            "echo >> '" + tried + "'; test \"$(cat count)\" -lt " + bad);
    assertThat(said).contains("is the first bad commit");
    assertThat(git("show", "refs/bisect/bad:count").strip()).isEqualTo(Integer.toString(bad));
    git("bisect", "reset");
    return Files.readAllLines(tried).size();
  }

  @Test
  void a_line_of_64_takes_as_many_tries_as_git_or_fewer() throws IOException, InterruptedException {
    List<Need> needs = new ArrayList<>();
    for (int i = 1; i < STEPS; i++) needs.add(new Need(i, i - 1));
    double[] alike = new double[STEPS];
    Arrays.fill(alike, 1);
    int each = Math.max(1, STEPS / Tries.ways(STEPS));
    for (int bad = 1; bad <= STEPS; bad += each) {
      int first = bad - 1;
      FaultSearch search = new FaultSearch(new Members(STEPS, needs), alike, true);
      Course course = FaultyWorld.followed(search, s -> s.get(first) ? Answer.FAILS : Answer.WORKS);
      assertThat(((Next.Found) course.end()).set().cardinality()).isEqualTo(bad);
      // git is told before that the last is bad and the first is good: the two sets asked first
      int ours = course.steps() - 2;
      assertThat(ours).as("first bad: " + bad).isLessThanOrEqualTo(triesOfGit(bad));
    }
  }
}
