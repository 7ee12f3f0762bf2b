package ironing.core.workspace;

import ironing.core.records.Collisions;
import ironing.core.records.RecordFindings.Finding;
import java.util.List;

/**
 * The stages behind the picture, in the order of the way of data. Those before it, from the
 * holdings to the load order, are in the picture itself.
 */
public final class Stages {
  private Stages() {}

  /** The records of the plugins that are on. */
  public static final Stage<ReadRecords> RECORDS = new ReadRecords.OfPluginsThatAreOn();

  /** How these collide under the user's decisions. */
  public static final Stage<Collisions> COLLISIONS = new RecordCollisions();

  /** What is wrong with single records, whoever else changes them. */
  public static final Stage<List<Finding>> FINDINGS = new RecordHealth();

  /** Mods that cannot break with a new version of the game. */
  public static final Stage<HarmlessMods> HARMLESS = new HarmlessMods.OfLibrary();
}
