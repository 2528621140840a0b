namespace Daxlin.Service.Storage;

/// <summary>Somebody, or a source, said which template an invoice is for, whatever its cues say. It holds however often its document is captured.</summary>
public sealed class TemplateChoice
{
    public int Id { get; set; }
    public int IntakeId { get; set; }

    /// <summary>The invoice's pages in the document, from 1; they are one invoice by this choice, too. To <see cref="Daxlin.Core.Recognition.SaidTemplate.ToTheEnd"/> for what was said before anybody had read it.</summary>
    public int FirstPage { get; set; }
    public int LastPage { get; set; }

    /// <summary>By its name: its newest version captures. One that is retired, or never was, counts for nothing.</summary>
    public required string Template { get; set; }
    public required DateTime At { get; set; }
    public required string By { get; set; }
}
