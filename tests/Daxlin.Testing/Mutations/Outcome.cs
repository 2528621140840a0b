using System.Collections.Immutable;
using System.Diagnostics;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Corrections;
using Daxlin.Core.Pages;
using Daxlin.Core.Values;

namespace Daxlin.Testing.Mutations;

/// <summary>What came of an invoice on which one thing was changed.</summary>
/// <param name="Wrong">The values that are not as they were, each with both.</param>
/// <param name="IsMendable">Says that one single number is wrong and a sum does not come out, so that the right one could be proposed.</param>
/// <param name="IsProposed">Says that the right number was proposed.</param>
/// <param name="IsOnlyProposal">Says that nothing else was.</param>
public sealed record Outcome(Verdict Verdict, ImmutableArray<string> Wrong, bool IsMendable, bool IsProposed, bool IsOnlyProposal)
{
    /// <summary>The codes of all findings.</summary>
    public ImmutableHashSet<string> Codes { get; private init; } = [];

    /// <summary>How long it took to look for proposals, on how many rows; nothing where none were looked for.</summary>
    public TimeSpan? Proposing { get; private init; }
    public int Rows { get; private init; }

    /// <summary>How far the numbers are proved.</summary>
    public Proof? Proof { get; private init; }

    /// <param name="mutation">What was changed.</param>
    /// <param name="pages">As changed.</param>
    public static Outcome Of(FamilyInvoice invoice, Mutation mutation, ImmutableArray<Page> pages) =>
        InvoicePath.Take(pages, invoice.Templates, DocumentFacts.Unknown) is not [{ Checked: { } after }] ? new Outcome(Verdict.Held, [], false, false, false)
            : Compared(invoice.Checked, after, mutation, pages) with { Codes = [.. after.Findings.Select(finding => finding.Code)], Proof = Proof.Of(after) };

    private static Outcome Compared(CheckedInvoice before, CheckedInvoice after, Mutation mutation, ImmutableArray<Page> pages)
    {
        var (was, now) = (Named(before.Captured), Named(after.Captured));
        List<string> wrong = [.. was.Keys.Union(now.Keys).Where(name => !IsSame(was.GetValueOrDefault(name), now.GetValueOrDefault(name))).Order(StringComparer.Ordinal)];
        ImmutableArray<string> differences = [.. wrong.Select(name => $"{name} {was.GetValueOrDefault(name)?.Value ?? "nothing"} → {now.GetValueOrDefault(name)?.Value ?? "nothing"}")];
        // The figures are as they were, but an amount with another currency's mark is another amount.
        if (mutation == Mutation.CurrencyMark)
            return new Outcome(after.IsClear ? Verdict.WrongAndClear : Verdict.Held, differences, false, false, false);
        if (after.IsClear)
        {
            var told = !IsExchanged(wrong, was, now) && !IsLostInRounding(wrong, after) && wrong.Any(name => (now.GetValueOrDefault(name) ?? was[name]) is { } value
                && (value.Number is not null ? !(now.ContainsKey(name) ? after.Unproved : before.Unproved).Contains(name) : value.Kind is ValueKind.Iban or ValueKind.Currency));
            return new Outcome(wrong.Count == 0 ? Verdict.Harmless : told ? Verdict.WrongAndClear : Verdict.Untold, differences, false, false, false);
        }
        if (wrong.Count == 0)
            return new Outcome(Verdict.HeldNeedlessly, [], false, false, false);
        var numbers = wrong.Where(name => was.GetValueOrDefault(name)?.Number is not null).ToList();
        if (numbers.Count != 1 || now.Count != was.Count || after.Ties.All(tie => tie.Holds))
            return new Outcome(Verdict.Held, differences, false, false, false);
        var corrected = InvoiceCorrections.Apply(after.Captured, []);
        ImmutableArray<PrintedLine> printed = [.. PrintedLine.Of(pages)];
        var begun = Stopwatch.GetTimestamp();
        var proposals = Proposals.Of(corrected, printed);
        var took = Stopwatch.GetElapsedTime(begun);
        var isProposed = proposals.Any(one => one.Of == numbers[0] && one.Value is { } text && SettledForm.Number(text) == was[numbers[0]].Number);
        return new Outcome(Verdict.Held, differences, true, isProposed, isProposed && proposals.Length == 1) { Proposing = took, Rows = after.Captured.Lines.Length };
    }

    /// <summary>A number with one more 0 behind its decimals is the same; so is a discount with a minus or without, since it is always taken off.</summary>
    private static bool IsSame(CapturedValue? one, CapturedValue? other) => one?.Value == other?.Value
        || (one is { Number: { } a } && other is { Number: { } b } && (a == b || (Math.Abs(a) == Math.Abs(b) && one.Name.StartsWith("discount", StringComparison.Ordinal))));

    /// <summary>Quantity and price of a row in each other's place: what they come to is the same, so no sum tells.</summary>
    private static bool IsExchanged(List<string> wrong, Dictionary<string, CapturedValue> was, Dictionary<string, CapturedValue> now) =>
        wrong is [var one, var other] && was.TryGetValue(one, out var a) && was.TryGetValue(other, out var b) && now.TryGetValue(one, out var c) && now.TryGetValue(other, out var d)
            && a.Number == d.Number && b.Number == c.Number && a.Number is not null;

    /// <summary>One number that every sum in which it stands rounds away: 1 × 6.445 comes to 6.45 as 1 × 6.45 does.</summary>
    private static bool IsLostInRounding(List<string> wrong, CheckedInvoice after) =>
        wrong is [var one] && after.Ties.Where(tie => tie.Members.Contains(one)).All(tie => Math.Abs(tie.Left - tie.Right) <= tie.Currency.MinorUnit / 2);

    private static Dictionary<string, CapturedValue> Named(CapturedInvoice invoice) => invoice.Values.ToDictionary(one => one.Name, one => one.Value);
}
