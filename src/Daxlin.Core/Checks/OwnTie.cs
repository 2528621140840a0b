using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>An equation of the template's own.</summary>
/// <param name="Text">As the template says it.</param>
/// <param name="Row">The row that it is of, spoken; empty for the whole invoice.</param>
/// <param name="IsMoney">Says that both sides are amounts.</param>
public sealed record OwnTie(
    string Text, string Row, decimal LeftSide, decimal RightSide, decimal Borne, bool IsMoney, Currency Currency, ImmutableArray<string> Members) : Tie(Currency, Members)
{
    public override bool HasFactors => true;
    public override string Code => "own-tie";
    public override string Equation => Row.Length == 0 ? Text : $"{Text} ({Row})";
    public override decimal Left => LeftSide;
    public override decimal Right => RightSide;
    public override decimal Tolerance => Borne;

    protected override string Says => $"{(Row.Length == 0 ? "" : char.ToUpperInvariant(Row[0]) + Row[1..] + ": ")}“{Text}”: the left side comes to";

    protected override string Show(decimal number) => IsMoney ? Currency.Show(number) : number.ToString(CultureInfo.InvariantCulture);

    /// <summary>The template's own equations as an invoice has them.</summary>
    /// <remarks>
    /// A value that the invoice does not have counts as nothing, but an equation of which a whole side is missing is none of this
    /// invoice: "deposit + balance = total" says nothing where neither a deposit nor a balance is printed.
    /// </remarks>
    public static IEnumerable<OwnTie> Of(CapturedInvoice invoice)
    {
        foreach (var rule in invoice.Template.Checks.Ties)
        {
            if (rule.OfRowsIn is not { } list)
            {
                if (Weighed(rule, invoice, null, "") is { } tie)
                    yield return tie;
                continue;
            }
            foreach (var row in invoice.RowsOf(list))
            {
                if (Weighed(rule, invoice, row, list) is { } tie)
                    yield return tie;
            }
        }
    }

    private static OwnTie? Weighed(TieRule rule, CapturedInvoice invoice, CapturedLine? row, string list)
    {
        var members = ImmutableArray.CreateBuilder<string>();
        var (left, hasLeft) = SideOf(rule.Left, invoice, row, list, members);
        var (right, hasRight) = SideOf(rule.Right, invoice, row, list, members);
        if (!hasLeft || !hasRight)
            return null;
        var check = invoice.Template.Checks;
        var isMoney = members.All(name => invoice.Named(name)?.Kind == ValueKind.Money);
        // What is multiplied is rounded by the vendor to the places that are printed.
        var rounding = rule.Left.Concat(rule.Right).Any(term => term.Factors.Length > 1) ? HalfOfLastPlace(members.Select(name => invoice.Named(name)?.Number).OfType<decimal>(), isMoney, invoice.Template.Reads.Currency) : 0;
        return new OwnTie(
            rule.Text, row is null ? "" : ValueNames.Spoken(ValueNames.Row(list, row.Number)), left, right, Math.Max(check.SumTolerance, rounding), isMoney, invoice.Template.Reads.Currency,
            [.. members.Distinct()]);
    }

    private static decimal HalfOfLastPlace(IEnumerable<decimal> numbers, bool isMoney, Currency currency) =>
        isMoney ? currency.MinorUnit / 2 : new decimal(5, 0, 0, false, (byte)(numbers.Max(number => (int)number.Scale) + 1));

    private static (decimal Sum, bool IsThere) SideOf(
        ImmutableArray<TieTerm> terms, CapturedInvoice invoice, CapturedLine? row, string list, ImmutableArray<string>.Builder members)
    {
        var (sum, isThere) = (0m, false);
        foreach (var term in terms)
        {
            var (product, all) = (1m, true);
            foreach (var factor in term.Factors)
            {
                if (ValueOf(factor, invoice, row, list, members) is { } value)
                    product *= value;
                else
                    all = false;
            }
            if (!all)
                continue;
            sum += term.IsTakenOff ? -product : product;
            isThere = true;
        }
        return (sum, isThere);
    }

    /// <summary>Null for what the invoice does not have.</summary>
    private static decimal? ValueOf(TieFactor factor, CapturedInvoice invoice, CapturedLine? row, string list, ImmutableArray<string>.Builder members)
    {
        if (factor.Number is { } constant)
            return constant;
        if (factor.IsSum)
        {
            var rows = invoice.RowsOf(factor.List).Where(line => line.NumberIn(factor.Name) is not null).ToList();
            members.AddRange(rows.Select(line => ValueNames.Of(factor.List, line.Number, factor.Name)));
            return rows.Count == 0 ? null : rows.Sum(line => line.NumberIn(factor.Name)!.Value);
        }
        var value = factor.IsOfRow ? row?.NumberIn(factor.Name) : invoice.Amount(factor.Name);
        if (value is not null)
            members.Add(factor.IsOfRow ? ValueNames.Of(list, row!.Number, factor.Name) : factor.Name);
        return value;
    }
}
