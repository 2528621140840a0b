using System.Collections.Immutable;
using System.Text.RegularExpressions;

namespace Daxlin.Core.Templates;

/// <summary>One step from captured text towards a typed value.</summary>
public abstract record TidyStep
{
    /// <summary>The text after the step; empty if nothing is left of it.</summary>
    public abstract string Apply(string text);
}

/// <summary>Keeps what a pattern matches: its first group, or all of it; nothing if it does not match.</summary>
public sealed record Take(Regex Pattern) : TidyStep
{
    public override string Apply(string text) => Pattern.Match(text) switch
    {
        { Success: false } => "",
        { Groups.Count: > 1 } match => match.Groups[1].Value,
        var match => match.Value,
    };
}

/// <summary>Leaves every occurrence of some text out: the "#" glued to a number.</summary>
public sealed record Drop(ImmutableArray<string> Texts) : TidyStep
{
    public override string Apply(string text) =>
        Texts.Aggregate(text, (rest, drop) => rest.Replace(drop, "", StringComparison.Ordinal)).Trim();
}

/// <summary>Puts one text in another's place.</summary>
public sealed record Replace(string Text, string With) : TidyStep
{
    public override string Apply(string text) => text.Replace(Text, With, StringComparison.Ordinal).Trim();
}
