package ironing.core.loadorder;

import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Found;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;

/**
 * Whether the game can read an order, and if not, why. Pure; every problem is told, not the first
 * one.
 */
public final class LoadOrderCheck {
  /** What is wrong. */
  public enum Code {
    UNDECODABLE,
    MASTER_MISSING,
    MASTER_OFF,
    MASTER_LATE,
    WRONG_GAME_VERSION,
    NO_SLOT,
    PACK_MISSING,
    /** Another file in play has its name but for the case. */
    SAME_NAME,
    /** A rule says that it goes only with another one, which is not on. */
    NEEDS_OTHER,
    /** A rule says that it does not go with another one, which is on. */
    CLASHES,
    /** It is off though its mod is on. */
    PLUGIN_OFF,
    /** Its mod needs another mod that is not there as it is needed. */
    MOD_NEED
  }

  /**
   * @param other the master, the plugin or the pack that it is about; empty where there is none
   * @param stops whether the game would stop over it
   */
  public record Trouble(
      Code code, String plugin, String other, String text, String remedy, boolean stops) {}

  /**
   * Slots taken by plugins that are on. Arithmetic: {@code total - reserved} are there for plugins,
   * the game's own included. Empty {@code total} means no limit.
   */
  public record Slots(int used, int own, Optional<Integer> total, int reserved) {
    /**
     * How many plugins of mods could be on at most: total, less the reserved ones and the game's
     * own.
     */
    public Optional<Integer> forMods() {
      return total.map(t -> t - reserved - own);
    }

    public Optional<Integer> left() {
      return total.map(t -> t - reserved - used);
    }
  }

  /** So many missing masters of one plugin are told one by one. */
  private static final int FEW_MASTERS = 5;

  private LoadOrderCheck() {}

  public static Slots slots(GameDefinition game, LoadOrder order) {
    Optional<GameDefinition.Slots> limit = game.plugins().flatMap(GameDefinition.Plugins::slots);
    int own = (int) order.active().stream().filter(Entry::own).count();
    return new Slots(
        order.active().size(),
        own,
        limit.map(GameDefinition.Slots::total),
        limit.map(GameDefinition.Slots::reserved).orElse(0));
  }

  /**
   * @param packInPlay tells whether a pack of this file name is in play
   */
  public static List<Trouble> troubles(
      GameDefinition game,
      Optional<String> gameVersion,
      LoadOrder order,
      Predicate<String> packInPlay) {
    List<Trouble> out = new ArrayList<>();
    for (int i = 0; i < order.entries().size(); i++) {
      Entry e = order.entries().get(i);
      if (!e.on()) continue;
      if (e.plugin().flaw().isPresent()) {
        out.add(
            new Trouble(
                Code.UNDECODABLE,
                e.name(),
                "",
                e.plugin().flaw().get(),
                "Switch it off, or bring in a sound file.",
                true));
        continue;
      }
      masters(order, i, e, out);
      gameVersion.ifPresent(v -> versions(v, e, out));
      for (String pack : e.plugin().header().map(h -> h.packs()).orElse(List.of())) {
        if (!packInPlay.test(pack))
          out.add(
              new Trouble(
                  Code.PACK_MISSING,
                  e.name(),
                  pack,
                  e.name() + " names the pack " + pack + ", which is not in play.",
                  "Switch on or install the mod that brings it.",
                  false));
      }
    }
    for (Found f : order.doubled()) {
      if (f.files().isPresent()) {
        out.add(sameNameOfText(order, f));
        continue;
      }
      String counts = order.find(f.name()).map(Entry::name).orElse(f.name());
      out.add(
          new Trouble(
              Code.SAME_NAME,
              counts,
              f.name(),
              counts
                  + " and "
                  + f.name()
                  + " are one name to the game; only "
                  + counts
                  + " counts.",
              "Switch off the mod that brings one of the two, or hold its file back.",
              false));
    }
    Slots slots = slots(game, order);
    if (slots.left().isPresent() && slots.left().get() < 0) {
      int over = -slots.left().get();
      out.add(
          new Trouble(
              Code.NO_SLOT,
              order.active().get(order.active().size() - 1).name(),
              "",
              slots.used()
                  + " plugins are on and there are only "
                  + (slots.total().get() - slots.reserved())
                  + " slots for them.",
              "Switch off " + over + (over == 1 ? " plugin" : " plugins") + ", or merge some.",
              true));
    }
    return List.copyOf(out);
  }

  private static Trouble sameNameOfText(LoadOrder order, Found f) {
    String there = order.find(f.name()).map(e -> e.plugin().path()).orElse("");
    return new Trouble(
        Code.SAME_NAME,
        f.name(),
        f.path(),
        there
            + " and "
            + f.path()
            + " both call themselves "
            + f.name()
            + "; only the first counts.",
        "Switch off the mod that brings one of the two, or have its author give it another name.",
        false);
  }

  private static void masters(LoadOrder order, int at, Entry e, List<Trouble> out) {
    List<String> missing = new ArrayList<>();
    for (String master : e.plugin().masters()) {
      int position = order.position(master);
      if (position < 0) {
        missing.add(master);
      } else if (!order.entries().get(position).on()) {
        out.add(
            new Trouble(
                Code.MASTER_OFF,
                e.name(),
                master,
                e.name() + " needs " + master + ", which is switched off.",
                "Switch " + master + " on.",
                true));
      } else if (position > at) {
        out.add(
            new Trouble(
                Code.MASTER_LATE,
                e.name(),
                master,
                e.name() + " loads before its master " + master + ".",
                "Take the proposal, or move " + e.name() + " below " + master + ".",
                true));
      }
    }
    missing(e, missing, out);
  }

  private static void missing(Entry e, List<String> missing, List<Trouble> out) {
    if (missing.size() <= FEW_MASTERS) {
      for (String master : missing)
        out.add(
            new Trouble(
                Code.MASTER_MISSING,
                e.name(),
                master,
                e.name() + " needs " + master + ", which is not in play.",
                "Bring in or switch on the mod with "
                    + master
                    + ", or switch "
                    + e.name()
                    + " off.",
                true));
      return;
    }
    // one line for a plugin that belongs to quite another set of mods, not thousands
    out.add(
        new Trouble(
            Code.MASTER_MISSING,
            e.name(),
            missing.get(0),
            e.name()
                + " needs "
                + missing.size()
                + " plugins that are not in play: "
                + String.join(", ", missing.subList(0, FEW_MASTERS))
                + " and "
                + (missing.size() - FEW_MASTERS)
                + " more.",
            "Bring in their mods, or switch " + e.name() + " off.",
            true));
  }

  private static void versions(String gameVersion, Entry e, List<Trouble> out) {
    Optional<String> range = e.plugin().header().flatMap(h -> h.game());
    if (range.isEmpty()) return;
    try {
      if (VersionRange.of(range.get()).contains(ModVersion.of(gameVersion))) return;
      out.add(
          new Trouble(
              Code.WRONG_GAME_VERSION,
              e.name(),
              range.get(),
              e.name()
                  + " is made for the game in version "
                  + range.get()
                  + "; this is "
                  + gameVersion
                  + ".",
              "Look for a version of its mod that fits, or switch it off.",
              true));
    } catch (IroningException unreadable) {
      out.add(
          new Trouble(
              Code.WRONG_GAME_VERSION,
              e.name(),
              range.get(),
              e.name() + " names the game's version as “" + range.get() + "”, which is no range.",
              "Ask its author; the game may stop over it.",
              false));
    }
  }
}
