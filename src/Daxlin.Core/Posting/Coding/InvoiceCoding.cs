using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Posting.Coding;

/// <summary>Gives the lines of an invoice their codes: by hand first, then by the rules, then what the template itself captured under a code's name.</summary>
public static class InvoiceCoding
{
    public const string ByHand = "by hand";
    public const string AsPrinted = "as printed";

    /// <param name="said">What persons said, by the line's number.</param>
    /// <param name="faults">What of the rules cannot be worked out for the invoice.</param>
    public static ImmutableArray<CodedLine> Of(
        ApprovedInvoice invoice, CodingRules rules, TranslationLists lists, IReadOnlyDictionary<int, SaidCoding> said, out ImmutableArray<string> faults)
    {
        var found = new List<string>();
        var minorDigits = Currency.Find(invoice.Currency)?.MinorDigits ?? 2;
        var lines = ImmutableArray.CreateBuilder<CodedLine>();
        foreach (var (line, record) in RecordsOf(invoice))
        {
            var scope = ExpressionScope.Of(record, lists);
            var fitting = Fitting(rules, scope, line, found);
            var amount = line == 0 ? invoice.Total - invoice.Tax : ExpressionType.Number.Read(record[TradeNames.Amount]) as decimal? ?? 0;
            lines.Add(new CodedLine(line, said.TryGetValue(line, out var own)
                ? Parted(amount, [.. own.Shares.Select(share => (share.Part, CodesOf(share.Codes, null, fitting, scope, line, found)))], minorDigits)
                : fitting.Find(one => !one.Rule.Shares.IsEmpty) is { Rule: { } sharing } from
                    ? Parted(amount, [.. sharing.Shares.Select(share => (share.Part, CodesOf(Nothing, (share, from), fitting, scope, line, found)))], minorDigits)
                    : Parted(amount, [(1, CodesOf(Nothing, null, fitting, scope, line, found))], minorDigits)));
        }
        faults = [.. found.Distinct()];
        return lines.ToImmutable();
    }

    private static readonly ImmutableSortedDictionary<string, string> Nothing = ImmutableSortedDictionary<string, string>.Empty;

    /// <summary>One record a line, and one for the whole of an invoice without lines.</summary>
    internal static IEnumerable<(int Line, PostingRecord Record)> RecordsOf(ApprovedInvoice invoice)
    {
        var plain = invoice with { Coding = [], Lines = [.. invoice.Lines.Select(line => line with { Under = [] })] };
        return PostingColumns.RowsOf(plain).Select((record, at) => (invoice.Lines.IsEmpty ? 0 : invoice.Lines[at].Number, record));
    }

    private static List<FittingRule> Fitting(CodingRules rules, ExpressionScope scope, int line, List<string> faults)
    {
        var fitting = new List<FittingRule>();
        for (var at = 0; at < rules.Rules.Length; at++)
        {
            var rule = rules.Rules[at];
            var name = string.Create(CultureInfo.InvariantCulture, $"rule {at + 1}") + (rule.Of.Length == 0 ? "" : $", {rule.Of}");
            if (rule.When is null || Worked(rule.When, scope, name, line, faults) is true)
                fitting.Add(new FittingRule(at + 1, name, rule));
        }
        return fitting;
    }

    private static ImmutableSortedDictionary<string, Code> CodesOf(
        ImmutableSortedDictionary<string, string> said, (CodingShare Share, FittingRule From)? shared, List<FittingRule> fitting, ExpressionScope scope, int line, List<string> faults)
    {
        var codes = ImmutableSortedDictionary.CreateBuilder<string, Code>(StringComparer.Ordinal);
        foreach (var name in CodeNames.All)
        {
            if (said.TryGetValue(name, out var own))
            {
                codes[name] = new Code(own, ByHand);
            }
            else if ((shared is var (share, from) && From(share.Codes, from) is { } ofShare ? ofShare : fitting.Select(one => From(one.Rule.Codes, one)).FirstOrDefault(code => code is not null)) is { } code)
            {
                codes[name] = code;
            }
            else if (scope.Record[name] is { Length: > 0 } printed)
            {
                codes[name] = new Code(printed, AsPrinted);
            }

            Code? From(ImmutableSortedDictionary<string, Expression> values, FittingRule rule) =>
                values.TryGetValue(name, out var value) && ExpressionTypes.Settled(Worked(value, scope, rule.Name, line, faults)).Trim() is { Length: > 0 } text
                    ? new Code(text, rule.Name) { Rule = rule.Number } : null;
        }
        return codes.ToImmutable();
    }

    /// <summary>What an expression comes to; null, and a fault that names the rule, where it cannot be worked out.</summary>
    internal static object? Worked(Expression expression, ExpressionScope scope, string rule, int line, List<string> faults)
    {
        try
        {
            return expression.Of(scope);
        }
        catch (EvaluationException error)
        {
            faults.Add($"Coding, {rule}{(line == 0 ? "" : string.Create(CultureInfo.InvariantCulture, $", row {line}"))}: {error.Message}");
            return null;
        }
    }

    private static ImmutableArray<CodedPart> Parted(decimal amount, ImmutableArray<(decimal Part, ImmutableSortedDictionary<string, Code> Codes)> shares, int minorDigits)
    {
        var amounts = SharedAmount.Of(amount, [.. shares.Select(share => share.Part)], minorDigits);
        return [.. shares.Select((share, at) => new CodedPart(amounts[at], share.Part, share.Codes))];
    }

    private sealed record FittingRule(int Number, string Name, CodingRule Rule);
}
