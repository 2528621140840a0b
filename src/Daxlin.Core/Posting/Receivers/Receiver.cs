namespace Daxlin.Core.Posting.Receivers;

/// <summary>Who gets the files of posting runs, and on which way.</summary>
/// <param name="Name">Small letters, digits and hyphens.</param>
/// <param name="Layout">It gets the runs by this layout; empty for all runs.</param>
/// <param name="AtOnce">Says that each new run is delivered by itself; else when a person says so.</param>
public sealed record Receiver(string Name, string Layout, bool AtOnce, ReceivingWay Way);
