using System.Collections.Immutable;

namespace Daxlin.Core.Checks;

/// <summary>One thing that a person must look at.</summary>
/// <param name="Code">A stable word for programs: lines-subtotal.</param>
/// <param name="Message">A sentence for a clerk, with the figures in it.</param>
/// <param name="About">The values concerned: <c>total</c>, <c>lines[3].amount</c>; lines count from 1.</param>
public sealed record Finding(string Code, Severity Severity, string Message, ImmutableArray<string> About)
{
    /// <summary>What the value may be as well, in its settled form, where a picture was read in several ways.</summary>
    public ImmutableArray<string> Readings { get; init; } = [];

    public static Finding Hold(string code, string message, params ReadOnlySpan<string> about) =>
        new(code, Severity.Hold, message, [.. about]);
}
