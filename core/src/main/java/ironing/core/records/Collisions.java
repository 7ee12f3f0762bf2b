package ironing.core.records;

import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.game.RecordType;
import ironing.core.game.RecordType.Kind;
import ironing.core.path.PathCase;
import ironing.core.plugin.Prints;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Collision.State;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.IntStream;

/**
 * How every record stands that some plugin overrides, or on which the user has decided; odd ones
 * are not among them.
 *
 * <p>Most are told by the prints of their fields alone. Where sets or rows were changed in
 * different ways, something is removed, or the user has decided, the values are read and combined.
 *
 * <p>Invariant: the same as {@link Collision#of} says of each. Threads: immutable; made on all
 * processors. Cost: linear in the fields of the overrides.
 */
public final class Collisions {
  private static final int CHUNK = 4_096;
  private static final long MISSING = 0;
  private static final int UNKNOWN = -1;

  private final GameDefinition game;
  private final RecordIndex index;
  private final Map<String, Map<String, Decided>> said;
  private final Map<Integer, Map<String, Decided>> decisions = new HashMap<>();
  // the fields' names of all tables under common numbers
  private final Map<String, Integer> numbers = new HashMap<>();
  private final int[][] numberOf;
  private final Map<String, Kind[]> kindsOf = new ConcurrentHashMap<>();

  private final int[] records;
  private final byte[] states;
  private final short[] lost;
  private final short[] asked;
  private final boolean[] wanting;
  private volatile boolean incomplete;

  private Collisions(
      GameDefinition game, RecordIndex index, Map<String, Map<String, Decided>> decided) {
    this.game = game;
    this.index = index;
    this.said = decided;
    decided.forEach(
        (key, places) -> {
          int record = Ref.parse(key).map(index::find).orElse(-1);
          if (record >= 0 && !index.isOdd(record) && !places.isEmpty())
            decisions.put(record, places);
        });
    numberOf = new int[index.pluginCount()][];
    for (int p = 0; p < numberOf.length; p++) {
      List<String> names = index.table(p).fieldNames();
      numberOf[p] = new int[names.size()];
      for (int i = 0; i < names.size(); i++)
        numberOf[p][i] = numbers.computeIfAbsent(names.get(i), n -> numbers.size());
    }
    records =
        IntStream.concat(
                Arrays.stream(index.overridden())
                    .filter(r -> !index.isOdd(r))
                    .filter(r -> takesSides(r) || decided(r)),
                decisions.keySet().stream()
                    .mapToInt(Integer::intValue)
                    .filter(r -> index.versionCount(r) == 1))
            .sorted()
            .toArray();
    states = new byte[records.length];
    lost = new short[records.length];
    asked = new short[records.length];
    wanting = new boolean[records.length];
    int chunks = (records.length + CHUNK - 1) / CHUNK;
    IntStream.range(0, chunks)
        .parallel()
        .forEach(
            c -> {
              Look look = new Look();
              int to = Math.min(records.length, (c + 1) * CHUNK);
              for (int i = c * CHUNK; i < to; i++) look.at(i);
            });
  }

  /**
   * @param decisions the user's, by the record's key as text and the place
   */
  public static Collisions in(
      GameDefinition game, RecordIndex index, Map<String, Map<String, Decided>> decisions) {
    return new Collisions(game, index, decisions);
  }

  /** The records that they are about. */
  public RecordIndex index() {
    return index;
  }

  /** Whether they are of these very records, under such decisions. */
  @SuppressWarnings("ReferenceEquality")
  public boolean isOf(RecordIndex records, Map<String, Map<String, Decided>> decided) {
    return index == records && said.equals(decided);
  }

  private boolean decided(int record) {
    return !decisions.isEmpty() && decisions.containsKey(record);
  }

  /** Whether a plugin that is no patch overrides it. */
  private boolean takesSides(int record) {
    for (int v = 1; v < index.versionCount(record); v++)
      if (!index.source(index.positionOf(record, v)).mend()) return true;
    return false;
  }

  public int size() {
    return records.length;
  }

  /** The number of a record in the index. */
  public int record(int i) {
    return records[i];
  }

  public State state(int i) {
    return State.values()[states[i]];
  }

  /**
   * In how many fields what the game reads lacks what somebody changed. Where sets were changed in
   * different ways the values are read for it.
   */
  public int lost(int i) {
    return lost[i] == UNKNOWN ? of(records[i]).lost().size() : lost[i];
  }

  /** How many places wait for the user; read like {@link #lost}. */
  public int asked(int i) {
    return asked[i] == UNKNOWN ? (int) of(records[i]).combination().asked() : asked[i];
  }

  /**
   * Whether the plugins alone do not come to the outcome, so that a patch has to hold it; false
   * while it waits for the user.
   */
  public boolean wantsPatch(int i) {
    return wanting[i] && game.canPatch(index.type(records[i]));
  }

  /** The place of a record among these, or -1. */
  public int find(int record) {
    int at = Arrays.binarySearch(records, record);
    return at < 0 ? -1 : at;
  }

  /** How a record stands; empty where nobody overrides it. */
  public Optional<State> stateOf(int record) {
    if (index.isOdd(record)) return Optional.of(State.ODD);
    int at = find(record);
    return at < 0 ? Optional.empty() : Optional.of(state(at));
  }

  /** The records in which what the game reads lacks a change of the plugin at a place. */
  public Set<Integer> losing(int position) {
    String name = index.name(position);
    Set<Integer> losing = new HashSet<>();
    for (int row = 0; row < index.table(position).size(); row++) {
      int record = index.recordAt(position, row);
      int at = record < 0 ? -1 : find(record);
      if (at < 0 || lost(at) == 0) continue;
      if (of(record).losesOf(game, name)) losing.add(record);
    }
    return losing;
  }

  /** The user's choices for a record. */
  public Map<String, Decided> decisionsOn(int record) {
    return decisions.getOrDefault(record, Map.of());
  }

  /** One of them with its values. */
  public Collision of(int record) {
    return Collision.of(game, index, record, decisionsOn(record));
  }

  /**
   * The same while the outcome is made of the same: the versions of those who take sides, in their
   * order, and what the user has said.
   */
  public long madeOf(int record) {
    long print = Prints.name(index.key(record).toString());
    for (int v = 0; v < index.versionCount(record); v++) {
      int position = index.positionOf(record, v);
      if (v > 0 && index.source(position).mend()) continue;
      print = Prints.mix(print, Prints.name(PathCase.fold(index.name(position))));
      print = Prints.mix(print, index.table(position).print(index.rowOf(record, v)));
    }
    Map<String, String> words = new TreeMap<>();
    decisionsOn(record).forEach((place, decided) -> words.putAll(words(place, decided)));
    for (Map.Entry<String, String> e : words.entrySet())
      print = Prints.mix(print, Prints.name(e.getKey() + "=" + e.getValue()));
    return print;
  }

  // the words of the first version of the product: what was made under them is fresh still
  private static Map<String, String> words(String place, Decided decided) {
    Map<String, String> words = new TreeMap<>();
    Decision d = decided.decision();
    words.put(
        place,
        d instanceof Decision.Own own
            ? "/value " + own.text()
            : d instanceof Decision.Outcome o
                ? "/"
                    + (o == Decision.Outcome.AS_BEFORE
                        ? "before"
                        : o.name().toLowerCase(Locale.ROOT))
                : d.taken().orElseThrow());
    if (!decided.seen().isEmpty()) words.put("/seen " + place, decided.seen());
    return words;
  }

  /** Whether every value that had to be read could be; else those count as waiting for the user. */
  public boolean complete() {
    return !incomplete;
  }

  public PathCase pathCase() {
    return game.pathCase();
  }

  /** How many stand how, the odd ones too. */
  public Map<State, Integer> counts() {
    int[] counts = new int[State.values().length];
    for (byte s : states) counts[s]++;
    Map<State, Integer> map = new EnumMap<>(State.class);
    for (State s : State.values()) map.put(s, counts[s.ordinal()]);
    map.put(State.ODD, index.oddRecords().length);
    return map;
  }

  /**
   * The places in the order of the plugins whose versions no other stands for; the first who made
   * the record is among them where nobody overrides it.
   */
  public int[] leaves(int record) {
    int all = index.versionCount(record), count = 0;
    int[] sides = new int[all];
    for (int v = 0; v < all; v++) {
      int position = index.positionOf(record, v);
      if (v == 0 || !index.source(position).mend()) sides[count++] = position;
    }
    int leaves = 0;
    int[] found = new int[count];
    for (int s = 0; s < count; s++) {
      boolean stoodFor = false;
      for (int o = 0; o < count && !stoodFor; o++) stoodFor = index.sees(sides[o], sides[s]);
      if (!stoodFor) found[leaves++] = sides[s];
    }
    return Arrays.copyOf(found, leaves);
  }

  /** Looks at one record after another, with room that is used again. */
  private final class Look {
    private final long[] ground = new long[numbers.size()];
    private final long[] outcome = new long[numbers.size()];
    private final int[] groundAt = new int[numbers.size()];
    private final int[] seenAt = new int[numbers.size()];
    private final int[] changedAt = new int[numbers.size()];
    private final boolean[] clash = new boolean[numbers.size()];
    private int[] touched = new int[16];
    // of the versions that take sides: their number in the record, their plugin's place, their row
    private int[] versions = new int[8];
    private int[] positions = new int[8];
    private int[] rowsOf = new int[8];
    private int stamp;
    private int nextStamp = 1;
    private int owner;
    private String lastType = "";
    private Kind[] lastKinds = new Kind[0];
    private int sides, groundFields, groundChanged, usedPosition, usedRow;

    void at(int i) {
      int record = records[i];
      if (decided(record) || !byPrints(i, record)) byValues(i, record);
    }

    private void byValues(int i, int record) {
      Collision c;
      try {
        c = of(record);
      } catch (IroningException unreadable) {
        // the drive may be away: that is told elsewhere, and must not hide all other records
        note(i, State.NEEDS_YOU, 0, 0);
        incomplete = true;
        return;
      }
      note(i, c.state(), c.lost().size(), c.combination().asked());
      wanting[i] = c.wantsPatch(game);
    }

    private void note(int i, State state, int lostFields, long askedPlaces) {
      states[i] = (byte) state.ordinal();
      lost[i] = (short) Math.min(lostFields, Short.MAX_VALUE);
      asked[i] = (short) Math.min(askedPlaces, Short.MAX_VALUE);
    }

    /** Gathers the versions that take sides; gives how many. */
    private int sides(int record) {
      // one record after another is asked for: their owners come in turn
      if (record < index.firstOf(owner)) owner = 0;
      while (record >= index.firstOf(owner + 1)) owner++;
      int count = 0, all = index.versionCount(record);
      for (int v = 0; v < all; v++) {
        int position = v == 0 ? owner : index.positionOf(record, v);
        if (v > 0 && index.source(position).mend()) continue;
        if (count == versions.length) {
          versions = Arrays.copyOf(versions, count * 2);
          positions = Arrays.copyOf(positions, count * 2);
          rowsOf = Arrays.copyOf(rowsOf, count * 2);
        }
        versions[count] = v;
        positions[count] = position;
        rowsOf[count++] = v == 0 ? index.ownRow(owner, record) : index.rowOf(record, v);
      }
      return count;
    }

    private boolean isLeaf(int side, int count) {
      for (int other = 0; other < count; other++)
        if (index.sees(positions[other], positions[side])) return false;
      return true;
    }

    /** The version that all could see; -1 where there is none, and each began with nothing. */
    private int groundOf(int count, boolean[] leaf) {
      int best = -1;
      for (int candidate = 0; candidate < count; candidate++) {
        // only of the owner's a leaf itself can be the ground: where nobody else takes a side
        if (candidate > 0 && leaf[candidate]) continue;
        boolean all = true;
        for (int l = 0; l < count && all; l++)
          all = !leaf[l] || l == candidate || index.sees(positions[l], positions[candidate]);
        if (all) best = candidate;
      }
      return best;
    }

    /** Whether the prints were enough to tell. */
    private boolean byPrints(int i, int record) {
      sides = sides(record);
      boolean[] leaf = new boolean[sides];
      for (int s = 0; s < sides; s++) leaf[s] = isLeaf(s, sides);
      int base = groundOf(sides, leaf);
      if (base < 0) return false;
      int usedVersion = index.versionCount(record) - 1;
      boolean usedBySide = versions[sides - 1] == usedVersion;
      usedPosition = usedBySide ? positions[sides - 1] : index.positionOf(record, usedVersion);
      usedRow = usedBySide ? rowsOf[sides - 1] : index.rowOf(record, usedVersion);
      if (index.table(usedPosition).removed(usedRow) || removed(base) || removed(sides - 1))
        return false;
      for (int s = 0; s < sides; s++) if (leaf[s] && removed(s)) return false;
      if (alone(i, leaf, positions[base], rowsOf[base])) return true;
      // one for the record, and one for each side behind it
      stamp = nextStamp;
      nextStamp += sides + 1;
      int touchedCount = 0;
      int position = positions[base], row = rowsOf[base];
      RecordTable table = index.table(position);
      for (int f = table.fieldFrom(row), to = table.fieldFrom(row + 1); f < to; f++) {
        int number = numberOf[position][table.fieldNumber(f)];
        groundAt[number] = stamp;
        ground[number] = table.fieldPrint(f);
      }
      groundFields = table.fieldFrom(row + 1) - table.fieldFrom(row);
      groundChanged = 0;
      long basePrint = table.print(row);
      int changers = 0;
      for (int s = 0; s < sides; s++) {
        if (!leaf[s]) continue;
        int p = positions[s], r = rowsOf[s];
        RecordTable t = index.table(p);
        if (t.print(r) == basePrint) continue;
        changers++;
        int seen = stamp + 1 + s, kept = 0;
        for (int f = t.fieldFrom(r), to = t.fieldFrom(r + 1); f < to; f++) {
          int number = numberOf[p][t.fieldNumber(f)];
          seenAt[number] = seen;
          long print = t.fieldPrint(f);
          boolean inGround = groundAt[number] == stamp;
          if (inGround) kept++;
          if (inGround && ground[number] == print) continue;
          touchedCount = change(number, print, touchedCount);
        }
        if (kept == groundFields) continue;
        for (int f = table.fieldFrom(row), to = table.fieldFrom(row + 1); f < to; f++) {
          int number = numberOf[position][table.fieldNumber(f)];
          if (seenAt[number] != seen) touchedCount = change(number, MISSING, touchedCount);
        }
      }
      int clashes = 0, joined = 0;
      for (int k = 0; k < touchedCount; k++) {
        if (!clash[touched[k]]) continue;
        Kind kind = kindOf(table.type(row), touched[k]);
        if (kind == Kind.ROWS) return false;
        if (kind == Kind.SET) joined++;
        else clashes++;
      }
      // what sets come to is another matter of values, but for one that waits for the user anyway
      if (joined > 0 && clashes == 0) return false;
      tell(i, touchedCount, clashes, joined > 0, changers);
      return true;
    }

    /** Whether one version stands for all others and is read: then its fields need no look. */
    private boolean alone(int i, boolean[] leaf, int position, int row) {
      int last = sides - 1;
      for (int s = 0; s < last; s++) if (leaf[s]) return false;
      if (positions[last] != usedPosition) return false;
      long print = index.table(usedPosition).print(usedRow);
      boolean same = index.table(position).print(row) == print;
      note(i, same ? State.SAME : State.ONE_CHANGES, 0, 0);
      return true;
    }

    private Kind kindOf(String type, int number) {
      if (!type.equals(lastType)) {
        lastKinds = kinds(type);
        lastType = type;
      }
      return lastKinds[number];
    }

    private int change(int number, long print, int touchedCount) {
      if (changedAt[number] != stamp) {
        changedAt[number] = stamp;
        if (groundAt[number] == stamp) groundChanged++;
        outcome[number] = print;
        clash[number] = false;
        if (touchedCount == touched.length) touched = Arrays.copyOf(touched, touchedCount * 2);
        touched[touchedCount] = number;
        return touchedCount + 1;
      }
      if (outcome[number] != print) clash[number] = true;
      return touchedCount;
    }

    private void tell(int i, int touchedCount, int clashes, boolean joins, int changers) {
      int lostFields = clashes + lacking(usedPosition, usedRow, touchedCount);
      boolean outcomeRead = clashes == 0 && lostFields == 0 && sameElsewhere(usedPosition, usedRow);
      boolean mend = index.source(usedPosition).mend();
      State state = State.COMBINES;
      if (clashes > 0) state = State.NEEDS_YOU;
      else if (outcomeRead && (mend || changers > 1)) state = State.SETTLED;
      else if (outcomeRead) state = changers == 0 ? State.SAME : State.ONE_CHANGES;
      note(i, state, joins ? UNKNOWN : lostFields, joins ? UNKNOWN : clashes);
      int p = positions[sides - 1], r = rowsOf[sides - 1];
      boolean byPlugins =
          p == usedPosition ? outcomeRead : lacking(p, r, touchedCount) == 0 && sameElsewhere(p, r);
      wanting[i] = clashes == 0 && !byPlugins;
    }

    /** How many fields of a version are not as the changes that do not clash come to. */
    private int lacking(int p, int r, int touchedCount) {
      RecordTable t = index.table(p);
      int lacking = 0;
      for (int k = 0; k < touchedCount; k++) {
        int number = touched[k];
        if (clash[number]) continue;
        long now = MISSING;
        for (int f = t.fieldFrom(r); f < t.fieldFrom(r + 1); f++)
          if (numberOf[p][t.fieldNumber(f)] == number) now = t.fieldPrint(f);
        if (now != outcome[number]) lacking++;
      }
      return lacking;
    }

    /** Whether a version is as the ground in all fields that nobody changed. */
    private boolean sameElsewhere(int p, int r) {
      RecordTable t = index.table(p);
      int same = 0;
      for (int f = t.fieldFrom(r); f < t.fieldFrom(r + 1); f++) {
        int number = numberOf[p][t.fieldNumber(f)];
        if (changedAt[number] == stamp) continue;
        if (groundAt[number] != stamp || ground[number] != t.fieldPrint(f)) return false;
        same++;
      }
      return same == groundFields - groundChanged;
    }

    private boolean removed(int side) {
      return index.table(positions[side]).removed(rowsOf[side]);
    }
  }

  /** By the number of a field, what kind it is in a type of record; null for one not described. */
  private Kind[] kinds(String type) {
    return kindsOf.computeIfAbsent(
        type,
        name -> {
          Kind[] kinds = new Kind[numbers.size()];
          RecordType described = game.records().get(name);
          if (described == null) return kinds;
          described
              .fields()
              .forEach(
                  (field, f) -> {
                    Integer number = numbers.get(field);
                    if (number != null) kinds[number] = f.kind();
                  });
          return kinds;
        });
  }
}
