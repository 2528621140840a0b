namespace Daxlin.Reading.Containers;

/// <summary>What a file is, by its bytes. Its name is only believed of messages, which begin with anything.</summary>
public enum FileKind
{
    Empty,
    Pdf,

    /// <summary>XML whose first element is one of an invoice's.</summary>
    ElectronicInvoice,

    /// <summary>Any other XML.</summary>
    Xml,
    Archive,
    Message,
    Picture,

    /// <summary>A text, a spreadsheet or a presentation, which are archives as well.</summary>
    Office,
    Unknown,
}
