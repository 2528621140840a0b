using System.Text.RegularExpressions;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture.Blocks;

/// <summary>Text that stands once and is meant for all rows below it, until the next: sections, delivery notes.</summary>
internal sealed class CarriedText(BlockRule block)
{
    private readonly Dictionary<string, (Printed Text, TextLine Line, bool IsUsed)> carried = [];

    /// <summary>The rule whose pattern a line has, or null.</summary>
    /// <param name="cutter">Null where the block has no columns that a line could begin in.</param>
    public static CarryRule? RuleByPattern(BlockRule block, TextLine line, LineCutter? cutter)
    {
        foreach (var rule in block.Carry)
        {
            if (!rule.InPageHead && rule.Pattern?.IsMatch(line.Text) == true && BeginsIn(rule, line, cutter))
                return rule;
        }
        return null;
    }

    /// <summary>The rule by which a line is carried for the place where it begins, or null.</summary>
    public static CarryRule? RuleByPlace(BlockRule block, TextLine line, LineCutter cutter)
    {
        foreach (var rule in block.Carry)
        {
            if (rule is { Pattern: null, InPageHead: false } && BeginsIn(rule, line, cutter))
                return rule;
        }
        return null;
    }

    /// <summary>Puts what is carried by now onto a row.</summary>
    public void PutOnto(RowDraft row)
    {
        foreach (var (name, entry) in carried)
        {
            row.Add(name, entry.Text);
            carried[name] = entry with { IsUsed = true };
        }
    }

    /// <summary>Takes what stands above the block on its page.</summary>
    public void TakePageHead(Page page, int start)
    {
        foreach (var rule in block.Carry.Where(rule => rule.InPageHead))
        {
            for (var index = 0; index < start; index++)
            {
                // A page head that has no row below it on its page is the head of one that has none.
                if (rule.Pattern!.Match(page.Lines[index].Text) is { Success: true } match)
                    carried[rule.Column] = (TextOf(page.Lines[index], match), page.Lines[index], true);
            }
        }
    }

    /// <summary>Takes a line for the rows below.</summary>
    /// <returns>The line before it, if no row has taken that one and it says something else.</returns>
    public TextLine? Take(CarryRule rule, TextLine line)
    {
        var text = rule.Pattern?.Match(line.Text) is { Success: true } match ? TextOf(line, match) : Printed.Of(line.Page, line.Words.AsSpan());
        var lost = carried.TryGetValue(rule.Column, out var before) && !before.IsUsed && before.Text.Text != text.Text ? before.Line : null;
        carried[rule.Column] = (text, line, false);
        return lost;
    }

    /// <summary>The lines that no row has taken.</summary>
    public IEnumerable<TextLine> Unused => carried.Values.Where(entry => !entry.IsUsed).Select(entry => entry.Line);

    private static Printed TextOf(TextLine line, Match match)
    {
        var group = match.Groups.Count > 1 ? match.Groups[1] : match;
        return LineSpan.Of(line, group.Index, group.Length);
    }

    private static bool BeginsIn(CarryRule rule, TextLine line, LineCutter? cutter) =>
        rule.BeginsIn is null || cutter?.RuleOf(cutter.ColumnOfWrapped(line.Box))?.Name == rule.BeginsIn;
}
