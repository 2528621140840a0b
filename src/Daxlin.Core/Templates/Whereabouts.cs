using System.Text.RegularExpressions;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Templates;

/// <summary>Where a value is.</summary>
public abstract record Whereabouts
{
    /// <summary>A short name for a trace: <c>beside “Invoice no”</c>.</summary>
    public abstract string Says { get; }
}

/// <summary>Whereabouts on the pages, of which there may be several places.</summary>
/// <param name="Occurrence">Which of the places counts: 1 the first, 2 the second, -1 the last; 0 any, but then all must give one value.</param>
/// <param name="OnPages">The pages that are looked at.</param>
public abstract record OnPage(int Occurrence, PageRange OnPages) : Whereabouts;

/// <summary>A value that stands by a cue.</summary>
/// <param name="Side">On which side of the cue the value stands.</param>
/// <param name="Cue">The printed words.</param>
/// <param name="Reach">How far from the cue the value may stand, in points.</param>
/// <param name="Lines">The most lines that the value has: 1, or more for an address.</param>
/// <param name="Within">The value must lie in this part of the page; null for anywhere.</param>
public sealed record ByCue(Side Side, Cue Cue, int Occurrence, PageRange OnPages, double Reach, int Lines, Box? Within)
    : OnPage(Occurrence, OnPages)
{
    public override string Says => $"{Side.ToString().ToLowerInvariant()} {Cue}";
}

/// <summary>A value at a fixed place.</summary>
/// <param name="PageNumber">From 1; -1 the last page.</param>
/// <param name="Place">Words whose centre lies in this box are taken.</param>
/// <param name="Lines">The most lines that the value has; of 1, all lines there are joined to one.</param>
public sealed record At(int PageNumber, Box Place, int Lines) : Whereabouts
{
    public override string Says => PageNumber < 0 ? "at a place on the last page" : $"at a place on page {PageNumber}";
}

/// <summary>The text of a line that matches a pattern: its first group, or all of it.</summary>
public sealed record Matching(Regex Pattern, int Occurrence, PageRange OnPages) : OnPage(Occurrence, OnPages)
{
    public override string Says => $"matching {Pattern}";
}

/// <summary>A constant: the vendor's name, a currency never printed.</summary>
public sealed record Always(string Value) : Whereabouts
{
    public override string Says => "always";
}

/// <summary>What a pattern matches in the file's or the batch's name.</summary>
public sealed record InName(NameOf Of, Regex Pattern) : Whereabouts
{
    public override string Says => $"in the {(Of == NameOf.File ? "file" : "batch")} name by {Pattern}";
}

/// <summary>Whose name is looked at.</summary>
public enum NameOf
{
    File,
    Batch,
}

/// <summary>Something that is known of the document without reading it.</summary>
public sealed record OfDocument(DocumentFact Fact) : Whereabouts
{
    public override string Says => Fact switch
    {
        DocumentFact.ReceivedDate => "the date the document was received",
        DocumentFact.PageCount => "the number of its pages",
        _ => "its first page in the file",
    };
}

/// <summary>What is known of a document.</summary>
public enum DocumentFact
{
    ReceivedDate,
    PageCount,
    PageNumber,
}
