namespace Daxlin.Core.Posting.Receivers;

/// <summary>Tables in PostgreSQL, one for each table of the layout, with the run's number in each row. A run is in them as a whole or not at all.</summary>
/// <param name="Password">Names the secret; empty for a server that asks for none.</param>
/// <param name="Schema">Of the tables; made if it is not there.</param>
public sealed record TableWay(string Host, int Port, string Database, string User, string Password, string Schema) : ReceivingWay
{
    public override string Word => "postgresql";

    public override string Place => $"{Database} at {Host}:{Port}, schema {Schema}";

    public override string Says => $"Its records are added to tables of {Place}, all or none, with the run's number in each row.";

    public override IEnumerable<string> Secrets => Password.Length == 0 ? [] : [Password];
}
