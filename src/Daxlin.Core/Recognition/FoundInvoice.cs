using System.Collections.Immutable;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Recognition;

/// <summary>An invoice found in a document, before it is captured.</summary>
/// <param name="Pages">Its pages, one at least; they keep their numbers in the document.</param>
/// <param name="Matches">The templates that recognise it, best first.</param>
public sealed record FoundInvoice(ImmutableArray<Page> Pages, ImmutableArray<TemplateMatch> Matches)
{
    /// <summary>Where the file was parted at its first page or behind its last one for a value that changed; null if it was not.</summary>
    public Parting? Parting { get; init; }

    /// <summary>Where no template recognises it: the one that would but for one cue; null if there is none.</summary>
    public NearMatch? Nearly { get; init; }

    /// <summary>What a person said of it; null if nobody did.</summary>
    public ChosenTemplate? Chosen { get; init; }

    /// <summary>The template that it was sent for; null if nobody said one, or a person chose one.</summary>
    public Template? Said { get; init; }

    /// <summary>The template that it belongs to; null if none recognises it, or if two do alike, and nobody chose one.</summary>
    public Template? Template => Chosen?.Template ?? (Said is { } said && SaidTemplate.IsAmong(said, Matches) ? said : Recogniser.Choice(Matches));
}
