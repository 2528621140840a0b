using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Daxlin.Core.Json;

namespace Daxlin.Core.Schedules;

/// <summary>Says what waits for a person, as the text of a message.</summary>
public static class DigestText
{
    /// <summary>The names that may stand in braces in a subject.</summary>
    public static ImmutableArray<string> Names { get; } = ["held", "clear", "approved", "day"];

    /// <summary>Those in a subject that are none of <see cref="Names"/>.</summary>
    public static IEnumerable<string> Unknown(string subject) => NamesInBraces.Of(subject).Where(name => !Names.Contains(name));

    public static string Subject(string subject, WaitingFacts facts) => NamesInBraces.Fill(subject, name => name switch
    {
        "held" => Text(facts.Held),
        "clear" => Text(facts.Clear),
        "approved" => Text(facts.Approved),
        "day" => facts.Day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
        _ => null,
    });

    /// <remarks>
    /// <code>
    /// 2 invoices to look at:
    /// - Skerry Chandlers 4711, 1,204.50 EUR, in Galley 2026-12-01: Lines add up to …
    /// - …
    ///
    /// 1 invoice is clear and waits for approval. 3 invoices are approved and wait to be posted.
    /// </code>
    /// </remarks>
    public static string Of(WaitingFacts facts)
    {
        var parts = new List<string>();
        if (facts.Held > 0)
        {
            var list = new StringBuilder($"{Counted(facts.Held, "invoice", "invoices")} to look at:");
            foreach (var one in facts.Oldest)
                list.Append("\n- ").Append(one.Name).Append(one.Total.Length > 0 ? ", " + one.Total : "").Append(", in ").Append(one.Batch).Append(": ").Append(one.Why);
            if (facts.Held > facts.Oldest.Length)
                list.Append("\nand ").Append(Counted(facts.Held - facts.Oldest.Length, "other", "others")).Append('.');
            parts.Add(list.ToString());
        }
        var counts = new[]
        {
            facts.Clear == 0 ? "" : $"{Counted(facts.Clear, "invoice is clear and waits", "invoices are clear and wait")} for approval.",
            facts.Approved == 0 ? "" : $"{Counted(facts.Approved, "invoice is approved and waits", "invoices are approved and wait")} to be posted.",
            facts.Unreadable == 0 ? "" : $"{Counted(facts.Unreadable, "document", "documents")} could not be read.",
        };
        if (string.Join(' ', counts.Where(said => said.Length > 0)) is { Length: > 0 } counted)
            parts.Add(counted);
        if (!facts.Troubles.IsEmpty)
            parts.Add("What stands still:" + string.Concat(facts.Troubles.Select(trouble => "\n- " + trouble)));
        return parts.Count == 0 ? "Nothing waits for a person." : string.Join("\n\n", parts);
    }

    private static string Counted(int count, string one, string more) => $"{Text(count)} {(count == 1 ? one : more)}";

    private static string Text(int count) => count.ToString(CultureInfo.InvariantCulture);
}
