package ironing.server.findings;

import ironing.core.IroningException;
import ironing.core.catalogue.Finding;
import ironing.core.catalogue.Finding.Verdict;
import ironing.core.catalogue.Finding.With;
import ironing.core.catalogue.FindingLines;
import ironing.core.version.VersionRange;
import ironing.server.findings.ModFindings.Sourced;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspaces;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What people have found out about mods. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/findings")
class ModFindingsController {
  private final ModFindings findings;
  private final OpenWorkspaces workspaces;

  ModFindingsController(ModFindings findings, OpenWorkspaces workspaces) {
    this.findings = findings;
    this.workspaces = workspaces;
  }

  /**
   * A mod that has to be on too.
   *
   * @param mod the id in the catalogues
   */
  record WithView(String mod, String versions) {}

  /**
   * A finding.
   *
   * @param id its number; absent for one of a catalogue
   * @param own whether it is yours
   * @param mod the id in the catalogues
   * @param game the range of the game’s versions that it was found with; absent for any
   * @param verdict what comes of it
   * @param says in a sentence; may be empty
   * @param at the day
   * @param by who says so; empty where it is not signed
   * @param speaks whether it is about what is on now
   */
  record ModFindingView(
      @MayBeAbsent Long id,
      boolean own,
      String mod,
      String versions,
      @MayBeAbsent String game,
      List<WithView> with,
      Verdict verdict,
      String says,
      String at,
      String by,
      boolean speaks) {
    static ModFindingView of(Sourced s) {
      Finding f = s.finding();
      return new ModFindingView(
          s.id() == 0 ? null : s.id(),
          s.own(),
          f.mod(),
          f.versions().toString(),
          f.game().map(VersionRange::toString).orElse(null),
          f.with().stream().map(w -> new WithView(w.mod(), w.versions().toString())).toList(),
          f.verdict(),
          f.says(),
          f.at(),
          f.by(),
          s.speaks());
    }
  }

  /**
   * A finding of yours.
   *
   * @param mod the id in the catalogues
   * @param versions a range; absent for any
   * @param game a range of the game’s versions; absent for any
   * @param with mods that have to be on too; absent for none
   * @param verdict what comes of it
   * @param says in a sentence; may be empty
   * @param by your name, if you want it to be said; absent for none
   */
  record FindingRequest(
      String mod,
      @MayBeAbsent String versions,
      @MayBeAbsent String game,
      @MayBeAbsent List<WithView> with,
      Verdict verdict,
      String says,
      @MayBeAbsent String by) {
    FindingRequest {
      Objects.requireNonNull(mod, "mod");
      Objects.requireNonNull(verdict, "verdict");
      Objects.requireNonNull(says, "says");
      with = with == null ? List.of() : with;
    }

    private static VersionRange range(String text) {
      return VersionRange.of(text == null || text.isBlank() ? "*" : text);
    }

    /** Held to the format, as one that is brought in. */
    Finding asked() {
      Finding f =
          new Finding(
              mod,
              range(versions),
              Optional.ofNullable(game).filter(g -> !g.isBlank()).map(VersionRange::of),
              with.stream().map(w -> new With(w.mod(), range(w.versions()))).toList(),
              verdict,
              says.strip(),
              LocalDate.now(ZoneId.systemDefault()).toString(),
              by == null ? "" : by.strip());
      try {
        return FindingLines.again(List.of(FindingLines.line(f))).get(0);
      } catch (IllegalArgumentException e) {
        String reason = e.getMessage().replaceFirst("a kept line ", "");
        throw new IroningException(List.of(ModFindings.invalid("The finding", reason)));
      }
    }
  }

  /**
   * @param text one finding a line, as JSON
   */
  record FindingsText(String text) {
    FindingsText {
      Objects.requireNonNull(text, "text");
    }
  }

  /**
   * @param count how many findings came
   */
  record BroughtIn(int count) {}

  /**
   * Your findings, and what others have found out about the mods that are on.
   *
   * @param mod the id of the one mod that is asked about, on or off, alone or with others; absent
   *     for all
   */
  @GetMapping
  List<ModFindingView> modFindings(
      @PathVariable long workspace, @RequestParam(required = false) String mod) {
    return findings.about(workspaces.get(workspace), Optional.ofNullable(mod)).stream()
        .map(ModFindingView::of)
        .toList();
  }

  /** Writes a finding of yours down, as of today. */
  @PostMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void addFinding(@PathVariable long workspace, @RequestBody FindingRequest body) {
    findings.add(workspaces.get(workspace), body.asked());
  }

  /** Takes a finding away that is yours or was brought in. */
  @DeleteMapping("/{finding}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void removeFinding(@PathVariable long workspace, @PathVariable long finding) {
    findings.remove(workspaces.get(workspace), finding);
  }

  /** Takes all findings away that were brought in; yours stay. */
  @DeleteMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void removeFindingsOfOthers(@PathVariable long workspace) {
    findings.removeOthers(workspaces.get(workspace));
  }

  /** Your findings as {@code ironing/findings@1}, one a line. */
  @GetMapping(path = "/text", produces = MediaType.TEXT_PLAIN_VALUE + ";charset=UTF-8")
  String findingsText(@PathVariable long workspace) {
    return findings.exported(workspaces.get(workspace));
  }

  /** Brings findings of others in: all lines or none. */
  @PostMapping("/text")
  BroughtIn bringInFindings(@PathVariable long workspace, @RequestBody FindingsText body) {
    return new BroughtIn(findings.bringIn(workspaces.get(workspace), body.text()));
  }
}
