using System.Text.RegularExpressions;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Text that stands once and is meant for all rows below it, until the next: sections, delivery notes.</summary>
internal sealed class CarriedText(BlockRule block)
{
    private readonly Dictionary<string, Printed> carried = [];

    /// <summary>Puts what is carried by now onto a row.</summary>
    public void PutOnto(RowDraft row)
    {
        foreach (var (name, text) in carried)
            row.Add(name, text);
    }

    public bool Has(string column) => carried.ContainsKey(column);

    /// <summary>Takes what stands above the block on its page.</summary>
    public void TakePageHead(Page page, int start)
    {
        foreach (var rule in block.Carry.Where(rule => rule.InPageHead))
        {
            for (var index = 0; index < start; index++)
            {
                if (rule.Pattern!.Match(page.Lines[index].Text) is { Success: true } match)
                    carried[rule.Column] = TextOf(page.Lines[index], match);
            }
        }
    }

    /// <param name="cutter">Null where the block has no columns that a line could begin in.</param>
    public bool TakeByPattern(TextLine line, LineCutter? cutter)
    {
        foreach (var rule in block.Carry)
        {
            if (rule.InPageHead || rule.Pattern?.IsMatch(line.Text) != true || !BeginsIn(rule, line, cutter))
                continue;
            carried[rule.Column] = TextOf(line, rule.Pattern.Match(line.Text));
            return true;
        }
        return false;
    }

    /// <summary>The rule by which a line is carried for the place where it begins, or null.</summary>
    public CarryRule? RuleByPlace(TextLine line, LineCutter cutter)
    {
        foreach (var rule in block.Carry)
        {
            if (rule is { Pattern: null, InPageHead: false } && BeginsIn(rule, line, cutter))
                return rule;
        }
        return null;
    }

    public void Take(CarryRule rule, TextLine line) => carried[rule.Column] = Printed.Of(line.Page, line.Words.AsSpan());

    private static Printed TextOf(TextLine line, Match match)
    {
        var group = match.Groups.Count > 1 ? match.Groups[1] : match;
        return LineSpan.Of(line, group.Index, group.Length);
    }

    private static bool BeginsIn(CarryRule rule, TextLine line, LineCutter? cutter) =>
        rule.BeginsIn is null || cutter?.RuleOf(cutter.ColumnOfWrapped(line.Box))?.Name == rule.BeginsIn;
}
