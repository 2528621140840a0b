using System.Text.RegularExpressions;

namespace Daxlin.Core.Templates.Tidy;

/// <summary>Keeps what a pattern matches: its first group, or all of it; nothing if it does not match.</summary>
public sealed record Take(Regex Pattern) : TidyStep
{
    public override string Name => "take";

    public override string Apply(string text) => Pattern.Match(text) switch
    {
        { Success: false } => "",
        { Groups.Count: > 1 } match => match.Groups[1].Value,
        var match => match.Value,
    };
}
