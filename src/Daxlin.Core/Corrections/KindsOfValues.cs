using Daxlin.Core.Capture;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Corrections;

/// <summary>Says what kind of value a field or column holds.</summary>
internal static class KindsOfValues
{
    public static ValueKind OfField(Template template, string name) => FindField(template, name) ?? TradeNames.KindOf(name);

    public static ValueKind OfColumn(Template template, string block, string column) => FindColumn(template, block, column) ?? TradeNames.KindOf(column);

    /// <summary>Null for a field that neither the template nor the trade knows.</summary>
    public static ValueKind? FindField(Template template, string name) => template.Fields.FirstOrDefault(rule => rule.Name == name)?.Kind
        ?? (TradeNames.Fields.Contains(name) ? TradeNames.KindOf(name) : null);

    /// <summary>Null for a column that neither the template's block nor the trade knows. It may be the path to a value in a list under the row.</summary>
    public static ValueKind? FindColumn(Template template, string block, string column)
    {
        var rule = template.Blocks.FirstOrDefault(rule => rule.Name == block);
        if (ValueNames.ParseUnder(column) is var (list, _, own))
        {
            return rule?.RowsUnder.FirstOrDefault(under => under.Name == list) is not { } under ? null
                : under.Columns.FirstOrDefault(one => one.Name == own)?.Kind ?? (TradeNames.Columns.Contains(own) ? TradeNames.KindOf(own) : null);
        }
        var known = rule?.IsTaxSummary == true ? TradeNames.TaxColumns : TradeNames.Columns;
        return rule?.Columns.FirstOrDefault(one => one.Name == column)?.Kind ?? (known.Contains(column) ? TradeNames.KindOf(column) : null);
    }

    /// <summary>The value of a settled text.</summary>
    public static CapturedValue ValueOf(string name, ValueKind kind, string settled, Trace trace) =>
        new(name, kind, settled, kind.IsFigure() ? SettledForm.Number(settled) : null, trace);
}
