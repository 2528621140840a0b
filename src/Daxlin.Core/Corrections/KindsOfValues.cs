using Daxlin.Core.Capture;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Corrections;

/// <summary>Says what kind of value a field or column holds.</summary>
internal static class KindsOfValues
{
    public static ValueKind OfField(Template template, string name) =>
        template.Fields.FirstOrDefault(rule => rule.Name == name)?.Kind ?? TradeNames.KindOf(name);

    public static ValueKind OfColumn(Template template, string block, string column) =>
        template.Blocks.FirstOrDefault(rule => rule.Name == block)?.Columns.FirstOrDefault(rule => rule.Name == column)?.Kind
        ?? TradeNames.KindOf(column);

    /// <summary>The value of a settled text.</summary>
    public static CapturedValue ValueOf(string name, ValueKind kind, string settled, Trace trace) =>
        new(name, kind, settled, kind.IsFigure() ? SettledForm.Number(settled) : null, trace);
}
