global using System.Data;
global using Dapper;
global using NodaTime;
global using SpringLoft.Core;
