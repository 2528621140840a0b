using System.Collections.Immutable;

namespace Daxlin.Core.People;

/// <summary>Who approves: in the own name, or for another who is away.</summary>
/// <param name="For">Who is away and gave the right; empty for one who has it.</param>
public sealed record Approver(string Name, string For = "")
{
    /// <summary>All whose approval it is: who stands in answers for it beside the one who is away.</summary>
    public ImmutableArray<string> Names => For.Length == 0 ? [Name] : [Name, For];

    /// <summary>As the history tells it: "Berta Quill for Cato Fenn".</summary>
    public override string ToString() => For.Length == 0 ? Name : $"{Name} for {For}";

    /// <summary>Says that one of the persons is one of the other's, without regard to capitals.</summary>
    public bool Shares(IEnumerable<string> names) => Names.Intersect(names, StringComparer.OrdinalIgnoreCase).Any();
}
