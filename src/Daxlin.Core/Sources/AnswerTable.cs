namespace Daxlin.Core.Sources;

/// <summary>In which form an answer has the rows of a document with it.</summary>
public enum AnswerTable
{
    None,
    Csv,
    Xlsx,
}
