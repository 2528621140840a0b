using System.Collections.Immutable;

namespace Daxlin.Core.Posting.Receivers;

/// <summary>Who gets the files of posting runs, and on which way.</summary>
/// <param name="Name">Small letters, digits and hyphens.</param>
/// <param name="Layout">It gets the runs by this layout; empty for all runs.</param>
/// <param name="AtOnce">Says that each new run is delivered by itself; else when a person says so.</param>
public sealed record Receiver(string Name, string Layout, bool AtOnce, ReceivingWay Way)
{
    /// <param name="layout">That made a run; empty for a run without one.</param>
    public bool Gets(string layout) => Layout.Length == 0 || Layout == layout;

    /// <summary>What is done for it, in sentences.</summary>
    public ImmutableArray<string> Says
    {
        get
        {
            var run = Layout.Length == 0 ? "run" : $"run by the layout “{Layout}”";
            return [AtOnce ? $"Each new {run} is delivered by itself as soon as it is made." : $"A {run} is delivered when a person says so.", Way.Says];
        }
    }
}
