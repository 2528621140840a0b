using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Reading.Recognising;
using Daxlin.Service.Desk;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Work;

/// <summary>What a reading process is asked to do with one document; one line of JSON on its input.</summary>
/// <param name="Document">The path of its bytes.</param>
/// <param name="Sha256">What they must come to.</param>
/// <param name="Result">The file that the result is written to.</param>
/// <param name="Facts">What is known of the document without reading it; null if only its words are wanted.</param>
/// <param name="Templates">The file of all templates, named by their state so that it is read once; null if only words are wanted.</param>
internal sealed record ReadingTask(string Document, string Sha256, string Result, DocumentFacts? Facts, string? Templates)
{
    /// <summary>The folder of what was recognised of its pages.</summary>
    public string Recognised { get; init; } = "";

    /// <summary>Says that a page of it is to be recognised instead; null for the rest.</summary>
    public RecogniseTask? Recognise { get; init; }

    /// <summary>A template that is rehearsed in the place of the one of its name; null for the capture itself.</summary>
    public string? Draft { get; init; }

    /// <summary>What persons said of its invoices' templates.</summary>
    public ImmutableArray<ChosenPages> Chosen { get; init; } = [];

    /// <summary>What is wanted for the desk instead; null for the rest.</summary>
    public DeskTask? Desk { get; init; }

    /// <summary>Says that files are to be taken out of it instead; null for the rest.</summary>
    public UnpackTask? Unpack { get; init; }
}

/// <summary>Taking files out of an archive or a message.</summary>
/// <param name="Name">What it was called.</param>
/// <param name="Folder">An empty one, for what is taken out.</param>
/// <param name="Covers">What cover sheets are called.</param>
internal sealed record UnpackTask(string Name, string Folder, ImmutableArray<string> Covers);

/// <summary>Recognising a page in a picture.</summary>
/// <param name="Number">From 1, in the document that it is of.</param>
/// <param name="Dpi">How many dots an inch it was drawn with; 0 where the document is itself a picture.</param>
/// <param name="Picture">The file that its picture is written to, upright, as a PNG; null where it is not wanted.</param>
internal sealed record RecogniseTask(int Number, double Dpi, string? Picture);

/// <summary>Pages of which a person said which template they are for.</summary>
internal sealed record ChosenPages(int FirstPage, int LastPage, string Template)
{
    public static ChosenPages Of(TemplateChoice choice) => new(choice.FirstPage, choice.LastPage, choice.Template);
}

/// <summary>The answer: one line of JSON on the output.</summary>
/// <param name="Code">Empty if the result is written; else why there is none.</param>
/// <param name="Sentence">The same for a person.</param>
internal sealed record ReadingAnswer(string Code, string Sentence)
{
    public static ReadingAnswer Done { get; } = new("", "");

    /// <summary>Pages that have to be recognised before there can be a result.</summary>
    public ImmutableArray<PicturedPage> Pictured { get; init; } = [];

    /// <summary>The document that they are of.</summary>
    public string Sha256 { get; init; } = "";
}

/// <summary>One template of the file of all templates.</summary>
internal sealed record ShelvedTemplate(string Name, int Version, string Document);
